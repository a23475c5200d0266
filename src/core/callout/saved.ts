import { Type, type Static } from '@sinclair/typebox';
import type { Size } from '../scale/rect';
import { strict } from '../schema/parts';
import type { Ticks } from '../time/ticks';
import type { Anchor } from './anchor';
import { WHOLE } from './kind';
import { kindOf } from './kinds';
import { Callout } from './model';

/** A callout that was saved to be used again, in other projects too. */
export const SavedCallout = strict({
  callout: Callout,
  of: strict(
    { width: Type.Number({ minimum: 1 }), height: Type.Number({ minimum: 1 }) },
    { description: 'Size of what it stands on, in pixels.' },
  ),
});
export type SavedCallout = Static<typeof SavedCallout>;

/** Where a saved callout is used. */
export interface Use {
  readonly id: string;
  readonly start: Ticks;
  /** The recording that is seen there, if any. */
  readonly footage: (Size & { readonly id: string }) | null;
  /** Of the project, in frame pixels. */
  readonly frame: Size;
}

/** What it stands on where it is used: what it went along with it does not know there. */
function anchorFor({ to }: Anchor, footageId: string | null): Anchor | null {
  if (to === 'frame') return { to };
  return footageId === null ? null : { to: to === 'pointer' ? to : 'footage', footageId };
}

/**
 * A callout as it was saved, at another time and over another recording: as long, and about the same
 * share of what it stands on.
 *
 * @returns null where it stands on a recording and none is seen
 */
export function savedCalloutAt({ callout, of }: SavedCallout, use: Use): Callout | null {
  const { id, start, footage, frame } = use;
  const anchor = anchorFor(callout.anchor, footage?.id ?? null);
  if (!anchor) return null;
  const end = start + callout.end - callout.start;
  const made = { ...structuredClone(callout), ...{ id, start, end, anchor } };
  if (anchor.to === 'pointer') return made;
  const onto = anchor.to === 'frame' ? frame : footage!;
  const kind = kindOf(made);
  const [handle] = kind.handles(made);
  const { at, size } = handle!;
  const x = at.x + (size?.width ?? 0) / 2;
  const y = at.y + (size?.height ?? 0) / 2;
  const by = { dx: (x * onto.width) / of.width - x, dy: (y * onto.height) / of.height - y };
  return { ...made, ...kind.withHandle(made, WHOLE, { by, frame: { dx: 0, dy: 0 } }) } as Callout;
}
