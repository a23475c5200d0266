import type { TObject } from '@sinclair/typebox';
import type { CalloutKind } from '../kind';
import { arrow } from './arrow';
import { box } from './box';
import { count } from './count';
import { cover } from './cover';
import { ellipse } from './ellipse';
import { highlight } from './highlight';
import { keycaps } from './keycaps';
import { lens } from './lens';
import { line } from './line';
import { link } from './link';
import { note } from './note';
import { picture } from './picture';
import { spotlight } from './spotlight';
import { stroke } from './stroke';
import { text } from './text';

/** Every kind of callout there is, in the order of the menu. All else derives from this list. */
export const KINDS = {
  ...{ text, cover, arrow, line, box, ellipse },
  ...{ note, highlight, spotlight, lens, keycaps, count, link, picture, stroke },
} as const;

export type CalloutKindName = keyof typeof KINDS;

/** The kind of a callout, for who treats all alike. */
export const kindOf = (callout: { readonly kind: CalloutKindName }): CalloutKind<TObject> =>
  // Each kind is only ever given its own callouts.
  KINDS[callout.kind] as unknown as CalloutKind<TObject>;
