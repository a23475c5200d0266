import { Type, type Static } from '@sinclair/typebox';
import { Id, strict } from '../schema/parts';
import { FollowPath } from './follow-path';

/**
 * What a callout stands on. Its points are in pixels of that: of a recording, so that it follows
 * zooms and layouts; of the frame, so that it stays where it is; of the recording from the
 * pointer's place on, so that it goes along with the pointer; or of the recording as it was when it
 * was marked, so that it goes along with what it marks.
 */
const ANCHORS = [
  strict({ to: Type.Literal('footage'), footageId: Id }),
  strict({ to: Type.Literal('frame') }),
  strict({ to: Type.Literal('pointer'), footageId: Id }),
  strict({ to: Type.Literal('track'), footageId: Id, path: FollowPath }),
] as const;

export type Anchor = Static<(typeof ANCHORS)[number]>;

export const Anchor = Type.Unsafe<Anchor>({
  type: 'object',
  required: ['to'],
  discriminator: { propertyName: 'to' },
  oneOf: ANCHORS,
});

/** The recording that an anchor is in; null for the frame. */
export const anchorFootage = (anchor: Anchor): string | null =>
  anchor.to === 'frame' ? null : anchor.footageId;
