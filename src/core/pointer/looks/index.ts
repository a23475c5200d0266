import type { TObject } from '@sinclair/typebox';
import type { PointerLookKind } from '../look';
import { dim } from './dim';
import { halo } from './halo';
import { ring } from './ring';

/** Every look of the pointer, in the order in which they are drawn. All else derives from this. */
export const LOOKS = { dim, halo, ring } as const;

export type PointerLookName = keyof typeof LOOKS;

/** The kind of a look, for who treats all alike. */
export const lookKindOf = (look: { readonly kind: PointerLookName }): PointerLookKind<TObject> =>
  // Each kind is only ever given its own looks.
  LOOKS[look.kind] as unknown as PointerLookKind<TObject>;
