import { Type, type Static } from '@sinclair/typebox';
import { Color, Id, nullable, oneOf, Share, strict, Time } from '../schema/parts';
import { Ground } from './ground';
import { OwnShape } from './own-shape';
import { PRESENTER_SHAPES } from './placement';

/** A rectangle in shares of the picture's width and height. */
export const Box = strict({ x: Share, y: Share, width: Share, height: Share });
export type Box = Static<typeof Box>;

/** The box that is all of the picture. */
export const WHOLE_BOX: Box = { x: 0, y: 0, width: 1, height: 1 };

const Ring = strict(
  {
    width: Type.Number({ minimum: 0, maximum: 60 }),
    color: Color,
    second: Type.Optional(nullable(Color)),
    gap: Type.Optional(
      Type.Number({ minimum: 0, maximum: 40, description: 'Between it and what it surrounds.' }),
    ),
  },
  { description: 'A coloured edge, in frame pixels.' },
);

const Shadow = Type.Number({
  minimum: 0,
  maximum: 1,
  description: 'How dark the shadow behind it is; none where it is not there.',
});

/** A presenter who stands in a box of the layout's own, and not where the project has them. */
export const PresenterBox = strict({
  box: Box,
  shape: oneOf(PRESENTER_SHAPES, { description: 'The outline that is seen of the box.' }),
  path: Type.Optional(OwnShape),
  feather: Type.Number({
    minimum: 0,
    maximum: 0.3,
    description: 'Width of the soft edge as a share of the box’s height.',
  }),
  center: {
    ...nullable(strict({ x: Share, y: Share })),
    description:
      'Middle of what is seen of the recording where the box has another shape, in shares of ' +
      'the recording; null is the middle of the face as the project has it.',
  },
  crop: Type.Optional(
    Type.Number({
      minimum: 0.2,
      maximum: 1,
      description:
        'Height of what is seen, as a share of what would fill the box; 1 where it is not there.',
    }),
  ),
  rounding: Type.Optional(
    Type.Number({
      minimum: 0,
      maximum: 0.5,
      description: 'Corners of a rounded box, as a share of its shorter side.',
    }),
  ),
  clear: Type.Optional(
    Type.Boolean({
      description:
        'Whether a keyed presenter stands over the screen with nothing behind them; else with what ' +
        'the project has there.',
    }),
  ),
  ring: nullable(Ring),
  shadow: Type.Optional(Shadow),
  reflection: Type.Optional(
    Type.Number({
      minimum: 0,
      maximum: 1,
      description: 'How clearly they are seen upside down below; not at all where it is not there.',
    }),
  ),
});
export type PresenterBox = Static<typeof PresenterBox>;

/** How screen and presenter share the picture. */
export const Layout = strict({
  name: Type.String({ maxLength: 200 }),
  background: {
    ...nullable(Ground),
    description: 'Seen where neither is; null is the background of the project.',
  },
  screen: {
    ...nullable(
      strict({
        box: Box,
        rounding: Type.Optional(
          Type.Number({
            minimum: 0,
            maximum: 0.5,
            description:
              'Its corners, as a share of its shorter side, where it has not the whole picture; ' +
              'square where it is not there.',
          }),
        ),
        ring: Type.Optional(Ring),
        shadow: Type.Optional(Shadow),
      }),
    ),
    description: 'Where the screen is; null hides it behind the presenter.',
  },
  presenter: {
    ...Type.Union([PresenterBox, Type.Literal('placed'), Type.Null()]),
    description: 'Where the presenter is: in a box, where the project places them, or nowhere.',
  },
  alone: oneOf(['stay', 'whole'], {
    description:
      'What the screen or the presenter does while the other has nothing to show: stays where ' +
      'it is, or takes the whole picture.',
  }),
});
export type Layout = Static<typeof Layout>;

/** The layout of a stretch of time; elsewhere it is the first of the built-in ones. */
export const LayoutSpan = strict({
  ...{ id: Id, start: Time, end: Time, layout: Layout },
  glide: Type.Optional({
    ...Time,
    description:
      'How long screen and presenter take to go over to it from the layout before, and back to ' +
      'the usual one after it; a cut where it is not there.',
  }),
  dissolves: Type.Optional(
    Type.Boolean({
      description:
        'Whether in that time one picture is blended over the other; else screen and presenter ' +
        'glide to where they stand then.',
    }),
  ),
});
export type LayoutSpan = Static<typeof LayoutSpan>;
