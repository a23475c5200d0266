import { Type, type Static } from '@sinclair/typebox';
import { OwnShape } from './own-shape';
import { Color, Id, nullable, oneOf, Share, strict } from '../schema/parts';
import { colorSetting, numberSetting, shareSetting, switchSetting } from '../schema/setting';

export const CORNERS = ['top-left', 'top-right', 'bottom-left', 'bottom-right'] as const;

export const PRESENTER_SHAPES = [
  'circle',
  'rectangle',
  'rounded',
  'portrait',
  'ellipse',
  'squircle',
  'own',
] as const;

/** What is seen where the key has taken the background out. */
export const Backdrop = Type.Union(
  [
    Color,
    strict(
      { blur: Type.Number({ minimum: 0.005, maximum: 0.2 }) },
      {
        description:
          'The recording’s own background, blurred by a radius of so many times its height.',
      },
    ),
    strict(
      { footageId: Id },
      { description: 'A picture of the footage, which fills the outline.' },
    ),
  ],
  { description: 'A colour, the background blurred, or a picture.' },
);
export type Backdrop = Static<typeof Backdrop>;

/** Where and how the presenter stands in a corner of the picture. */
export const PresenterPlacement = strict({
  corner: oneOf(CORNERS, {
    title: 'Corner',
    labels: ['top left', 'top right', 'bottom left', 'bottom right'],
    default: 'bottom-right',
  }),
  size: shareSetting('Size', 0.3, {
    min: 0.05,
    description: 'Height of the inset as a share of the frame’s height.',
  }),
  margin: shareSetting('Distance to edge', 0.035, {
    max: 0.3,
    step: 0.005,
    description: 'Distance to the frame’s edges as a share of its height.',
  }),
  shape: oneOf(PRESENTER_SHAPES, {
    title: 'Shape',
    labels: ['Circle', 'Rectangle', 'Rounded', 'Portrait', 'Ellipse', 'Squircle', 'Own shape'],
    default: 'circle',
  }),
  path: Type.Optional(OwnShape),
  feather: shareSetting('Feather', 0, {
    max: 0.3,
    description: 'Width of the soft edge as a share of the inset’s height.',
  }),
  mirror: switchSetting('Mirror', false),
  center: {
    ...strict({ x: Share, y: Share }),
    default: { x: 0.5, y: 0.42 },
    description:
      'Middle of the part that a circle shows, as shares of the footage’s width and height.',
  },
  crop: Type.Number({
    minimum: 0.2,
    maximum: 1,
    default: 0.84,
    description: 'Height of the part that a circle shows, as a share of the footage’s height.',
  }),
  backdrop: {
    ...nullable(Backdrop),
    default: '#e3eef2',
    description: 'Fills the inset behind a keyed presenter; null leaves it clear.',
  },
  ring: strict(
    {
      width: numberSetting({
        label: 'Ring',
        description: 'Frame pixels, 0 for none.',
        unit: 'px',
        min: 0,
        max: 60,
        step: 1,
        fallback: 4,
        usual: [0, 20],
      }),
      color: colorSetting('Ring colour', '#0e6b63'),
      second: {
        ...nullable(Color),
        default: null,
        description: 'Colour that it goes over to from the upper left to the lower right.',
      },
      gap: numberSetting({
        label: 'Gap',
        description: 'Frame pixels between the presenter and the ring.',
        unit: 'px',
        min: 0,
        max: 40,
        step: 1,
        fallback: 0,
        usual: [0, 20],
      }),
    },
    { description: 'A coloured edge.' },
  ),
  shadow: shareSetting('Shadow', 0, { description: 'How dark the shadow behind them is.' }),
  reflection: Type.Optional(
    shareSetting('Reflection', 0, {
      description: 'How clearly they are seen upside down below, as on polished ground.',
    }),
  ),
});
export type PresenterPlacement = Static<typeof PresenterPlacement>;
