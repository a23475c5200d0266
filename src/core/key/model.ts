import { Type, type Static } from '@sinclair/typebox';
import { Color, FootageRect, Id, nullable, oneOf, strict, Time } from '../schema/parts';
import { numberSetting, shareSetting } from '../schema/setting';

const Plane = Type.Array(Type.Number({ minimum: 0, maximum: 255 }), { maxItems: 4096 });

/** The empty wall as a coarse picture: luma and chroma in 8-bit code values, row by row. */
export const WallMap = strict({
  columns: Type.Integer({ minimum: 1, maximum: 64 }),
  rows: Type.Integer({ minimum: 1, maximum: 64 }),
  y: Plane,
  u: Plane,
  v: Plane,
});
export type WallMap = Static<typeof WallMap>;

/** What tells the presenter of a recording from what is behind them. */
export const KEY_METHODS = ['wall', 'person', 'shot'] as const;
export type KeyMethod = (typeof KEY_METHODS)[number];

/** A wall has no more further samples than this. */
export const MOST_SAMPLES = 8;

/** How the background of one recording is taken out. */
export const FootageKey = strict({
  footageId: Id,
  on: Type.Boolean({ default: true }),
  method: oneOf(KEY_METHODS, {
    title: 'Told by',
    labels: ['The colour of a wall', 'The person', 'A shot without them'],
    default: 'wall',
    description:
      'What tells the presenter from the background: the colour of a wall, that they are a person, ' +
      'or a stretch of the recording in which they are not there.',
  }),
  shot: {
    ...nullable(strict({ start: Time, end: Time })),
    default: null,
    description: 'The stretch of the recording without the presenter, in ticks of it.',
  },
  color: { ...Color, default: '#2f9a4b', description: 'Colour of the wall.' },
  tolerance: numberSetting({
    label: 'Tolerance',
    description:
      'Distance from the wall, along its own direction in the chroma plane, below which a pixel ' +
      'is wall, in 8-bit code values.',
    unit: '',
    min: 0,
    max: 120,
    step: 1,
    fallback: 10,
    usual: [0, 90],
  }),
  softness: numberSetting({
    label: 'Softness',
    description: 'Width of the band over which it turns opaque, in code values.',
    unit: '',
    min: 1,
    max: 120,
    step: 1,
    fallback: 30,
    usual: [1, 90],
  }),
  choke: numberSetting({
    label: 'Choke',
    description: 'Takes so many footage pixels off the edge; below 0 it adds them.',
    unit: 'px',
    min: -10,
    max: 10,
    step: 1,
    fallback: 0,
  }),
  feather: numberSetting({
    label: 'Feather',
    description: 'Radius in footage pixels by which the edge is blurred.',
    unit: 'px',
    min: 0,
    max: 20,
    step: 1,
    fallback: 0,
  }),
  garbage: {
    ...nullable(FootageRect),
    default: null,
    description: 'What lies outside is taken out whatever its colour; null for nothing.',
  },
  wall: {
    ...nullable(WallMap),
    default: null,
    description: 'The wall’s light as found over the whole recording; null takes the colour.',
  },
  samples: Type.Array(Color, {
    maxItems: MOST_SAMPLES,
    default: [],
    description: 'Further colours that the wall has, in folds and corners.',
  }),
  spill: {
    ...nullable(Color),
    default: null,
    description: 'Colour of the light that the wall throws on the presenter; null is the wall’s.',
  },
  wrap: shareSetting('Light wrap', 0, {
    description: 'How much light of what is put behind the presenter falls around their outline.',
  }),
  steady: shareSetting('Steadiness', 0.6, {
    description: 'How much noise is kept from making the outline crawl from picture to picture.',
  }),
});
export type FootageKey = Static<typeof FootageKey>;
