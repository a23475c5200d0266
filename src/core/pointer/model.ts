import { Type, type Static } from '@sinclair/typebox';
import { Id, strict, Time } from '../schema/parts';
import { defaultsOf } from '../schema/setting';
import { LOOKS, type PointerLookName } from './looks';

export type PointerLook = Static<(typeof LOOKS)[PointerLookName]['schema']>;

/** One look of the pointer, told by its `kind`. */
export const PointerLook = Type.Unsafe<PointerLook>({
  type: 'object',
  required: ['kind'],
  discriminator: { propertyName: 'kind' },
  oneOf: Object.values(LOOKS).map(({ schema }) => schema),
});

/** How the pointer looks for a while: each look at most once. */
export const PointerSpan = strict({
  id: Id,
  start: Time,
  end: Time,
  looks: Type.Array(PointerLook, { maxItems: 64 }),
});
export type PointerSpan = Static<typeof PointerSpan>;

/** A look as it is when it is switched on. */
export const newLook = (kind: PointerLookName): PointerLook => defaultsOf(LOOKS[kind].schema);
