import { Type, type Static } from '@sinclair/typebox';
import { formatColor, parseColor } from '../key/color';
import { Color, Id, strict } from '../schema/parts';

/** What is seen where neither screen nor presenter is. */
export const Ground = Type.Union(
  [
    Color,
    strict(
      { from: Color, to: Color },
      {
        description: 'A colour that goes over to another, from the upper left to the lower right.',
      },
    ),
    strict({ footageId: Id }, { description: 'A picture of the footage, which fills the frame.' }),
  ],
  { description: 'A colour, two colours or a picture.' },
);
export type Ground = Static<typeof Ground>;

/** What stands in for a picture that is gone, `#rrggbb`. */
const GONE = '#000000';

/** A ground as one colour, `#rrggbb`, for where no more can be shown. */
export function plainGround(ground: Ground): string {
  if (typeof ground === 'string') return ground;
  return 'from' in ground ? ground.from : GONE;
}

/** The still that a ground shows; none of a colour. */
export const pictureOfGround = (ground: Ground | null): readonly string[] =>
  typeof ground === 'object' && ground && 'footageId' in ground ? [ground.footageId] : [];

/** A colour on the way to another, both as `#rrggbb`; `u` is 0 to 1. */
function mixColors(a: string, b: string, u: number): string {
  const [from, to] = [parseColor(a), parseColor(b)];
  const channel = (i: 0 | 1 | 2) => from[i] + (to[i] - from[i]) * u;
  return formatColor([channel(0), channel(1), channel(2)]);
}

/**
 * A ground on its way to another: colours go over into each other. Where one of the two is a
 * picture there is nothing between them, and null is answered: the one is to be laid over the other.
 *
 * @param u how far it has come, 0 to 1
 */
export function groundBetween(a: Ground, b: Ground, u: number): Ground | null {
  const [first, second] = [ends(a), ends(b)];
  if (!first || !second) return null;
  const from = mixColors(first.from, second.from, u);
  const to = mixColors(first.to, second.to, u);
  return from === to ? from : { from, to };
}

/** The colours at both ends of a ground; null of a picture. */
function ends(ground: Ground): { readonly from: string; readonly to: string } | null {
  if (typeof ground === 'string') return { from: ground, to: ground };
  return 'from' in ground ? ground : null;
}
