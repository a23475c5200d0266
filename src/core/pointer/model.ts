import { Type, type Static } from '@sinclair/typebox';
import { Id, strict, Time } from '../schema/parts';
import { defaultsOf } from '../schema/setting';
import type { Range } from '../time/ranges';
import { LOOKS, type PointerLookName } from './looks';

export type PointerLook = Static<(typeof LOOKS)[PointerLookName]['schema']>;

/** One look of the pointer, told by its `kind`. */
export const PointerLook = Type.Unsafe<PointerLook>({
  type: 'object',
  required: ['kind'],
  discriminator: { propertyName: 'kind' },
  oneOf: Object.values(LOOKS).map(({ schema }) => schema),
});

/**
 * How the pointer looks for a while. Where spans overlap, of each kind the one begun last counts.
 */
export const PointerSpan = strict({
  id: Id,
  start: Time,
  end: Time,
  fadeIn: { ...Time, description: 'The looks come in so long, in ticks.' },
  fadeOut: Time,
  looks: Type.Array(PointerLook, { maxItems: 64 }),
});
export type PointerSpan = Static<typeof PointerSpan>;

/** Looks that are kept under a name, to be used again in any project. */
export const SavedLooks = strict({ looks: PointerSpan.properties.looks });
export type SavedLooks = Static<typeof SavedLooks>;

/** Looks for a stretch of time, with no fades. */
export const pointerSpan = (
  id: string,
  { start, end }: Range,
  looks: readonly PointerLook[],
): PointerSpan => ({ id, start, end, fadeIn: 0, fadeOut: 0, looks: [...looks] });

/** A look as it is when it is switched on. */
export const newLook = (kind: PointerLookName): PointerLook => defaultsOf(LOOKS[kind].schema);
