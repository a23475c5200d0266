import type { TObject } from '@sinclair/typebox';
import type { PointerLookKind } from '../look';
import { dim } from './dim';
import { halo } from './halo';
import { hidden } from './hidden';
import { keycaps } from './keycaps';
import { lens } from './lens';
import { rest } from './rest';
import { ring } from './ring';
import { size } from './size';
import { steady } from './steady';
import { tick } from './tick';
import { trail } from './trail';

/**
 * Every look of the pointer, in the order in which they are drawn and change the pointer. All else
 * derives from this.
 */
export const LOOKS = {
  ...{ dim, halo, trail, ring },
  ...{ steady, size, rest, hidden },
  ...{ lens, keycaps, tick },
} as const;

export type PointerLookName = keyof typeof LOOKS;

/** The kind of a look, for who treats all alike. */
export const lookKindOf = (look: { readonly kind: PointerLookName }): PointerLookKind<TObject> =>
  // Each kind is only ever given its own looks.
  LOOKS[look.kind] as unknown as PointerLookKind<TObject>;
