import { Type, type Static, type TProperties } from '@sinclair/typebox';
import { Color, FootageRect, Id, oneOf, Point, strict, Time } from '../schema/parts';

/** Blurred, in coarse blocks, or painted over. Only the last leaves nothing to guess. */
export const COVER_WAYS = ['blur', 'mosaic', 'solid'] as const;
export const SHAPES = ['arrow', 'box', 'ellipse'] as const;

const callout = <P extends TProperties>(properties: P) =>
  strict({ id: Id, start: Time, end: Time, footageId: Id, ...properties });

const LineWidth = Type.Number({ minimum: 1, maximum: 400, description: 'Footage pixels.' });

/** A few words in a box, with an arrow to a spot of the footage. */
export const TextCallout = callout({
  kind: Type.Literal('text'),
  text: Type.String({ maxLength: 2000 }),
  anchor: { ...Point, description: 'The arrow’s tip, in footage pixels.' },
  offset: strict(
    { dx: Type.Number(), dy: Type.Number() },
    {
      description:
        'From the tip to the middle of the box, in frame pixels: the box keeps its size in a zoom.',
    },
  ),
  size: Type.Number({
    minimum: 8,
    maximum: 400,
    description: 'Height of the letters in frame pixels.',
  }),
  fill: Color,
  ink: Color,
  arrow: Type.Boolean(),
});
export type TextCallout = Static<typeof TextCallout>;

/** Hides part of the footage. */
export const CoverCallout = callout({
  kind: Type.Literal('cover'),
  rect: FootageRect,
  way: oneOf(COVER_WAYS),
  strength: Type.Number({
    minimum: 2,
    maximum: 100,
    description: 'Blur radius, or half the side of a mosaic’s blocks, in footage pixels.',
  }),
  color: { ...Color, description: 'Of a solid cover.' },
});
export type CoverCallout = Static<typeof CoverCallout>;

/** A freehand line that appears as it was drawn. */
export const StrokeCallout = callout({
  kind: Type.Literal('stroke'),
  tool: oneOf(['pen', 'marker'], { description: 'A marker pen is see-through.' }),
  points: Type.Array(Type.Tuple([Type.Number(), Type.Number(), Type.Number()]), {
    minItems: 1,
    maxItems: 20000,
    description: '`[ms, x, y]`: milliseconds after the callout’s start, footage pixels.',
  }),
  width: LineWidth,
  color: Color,
});
export type StrokeCallout = Static<typeof StrokeCallout>;

/** An arrow from one spot to another, or an outline that has them as opposite corners. */
export const ShapeCallout = callout({
  kind: Type.Literal('shape'),
  shape: oneOf(SHAPES),
  from: { ...Point, description: 'Footage pixels.' },
  to: { ...Point, description: 'Footage pixels.' },
  width: LineWidth,
  color: Color,
});
export type ShapeCallout = Static<typeof ShapeCallout>;

const KINDS = [TextCallout, CoverCallout, StrokeCallout, ShapeCallout] as const;

export type Callout = Static<(typeof KINDS)[number]>;

/** A callout of any kind, told by its `kind`. */
export const Callout = Type.Unsafe<Callout>({
  type: 'object',
  required: ['kind'],
  discriminator: { propertyName: 'kind' },
  oneOf: KINDS,
});
