import { Type, type Static } from '@sinclair/typebox';
import { Color, Decibels, Id, Length, nullable, oneOf, strict, Time } from '../../schema/parts';
import { numberSetting } from '../../schema/setting';

export const PICTURE_LANES = ['presenter', 'screen'] as const;
export const SOUND_LANES = ['voice', 'music', 'computer'] as const;
export const LANE_KINDS = [...PICTURE_LANES, ...SOUND_LANES] as const;
export type LaneKind = (typeof LANE_KINDS)[number];

export const TRANSITION_KINDS = ['dissolve', 'fade', 'slide', 'push'] as const;

const Level = numberSetting({
  label: 'Level',
  unit: 'dB',
  min: -96,
  max: 24,
  step: 0.5,
  fallback: 0,
  usual: [-40, 12],
});

/** How one picture becomes the next. */
export const Transition = strict({
  kind: oneOf(TRANSITION_KINDS),
  duration: Type.Integer({
    ...Length,
    description:
      'As wanted; what neighbours and footage leave room for counts. Half of it lies on each ' +
      'side of a cut.',
  }),
  color: { ...Color, description: 'A fade goes through this.' },
  from: oneOf(['left', 'right', 'top', 'bottom'], {
    description: 'The side that a slide or push comes from.',
  }),
});
export type Transition = Static<typeof Transition>;

export const Clip = strict({
  id: Id,
  footageId: Id,
  start: Time,
  duration: Length,
  source: { ...Time, description: 'Time in the footage that is seen or heard at the start.' },
  link: {
    ...nullable(Id),
    description: 'Clips that carry the same link move, trim and split together.',
  },
  speed: {
    ...Type.Union([Type.Literal(0), Type.Number({ minimum: 0.1, maximum: 16 })]),
    description:
      'Ticks of footage for one tick of the timeline, in thousandths; 0 is a frozen picture.',
  },
  gain: Level,
  muted: { ...Type.Boolean(), description: 'Not heard.' },
  fadeIn: { ...Time, description: 'Fade of the sound at its start, in timeline ticks.' },
  fadeOut: { ...Time, description: 'Fade of the sound at its end, in timeline ticks.' },
  envelope: Type.Array(Type.Tuple([Time, Decibels]), {
    maxItems: 5000,
    description:
      'Level over time as `[footage time, dB]`, in order; straight lines between, the nearest ' +
      'value outside. Being in footage time, points stay with the words they were set for.',
  }),
  transitionIn: {
    ...nullable(Transition),
    description: 'At the cut where it begins, or at its free start.',
  },
  transitionOut: {
    ...nullable(Transition),
    description: 'At its free end; at a cut the clip that follows has the transition.',
  },
  group: { ...nullable(Id), description: 'The group that it belongs to.' },
});
export type Clip = Static<typeof Clip>;

export const Lane = strict({
  id: Id,
  kind: oneOf(LANE_KINDS),
  name: Type.String({ maxLength: 200 }),
  gain: { ...Level, description: 'Sound level in dB; of no effect on picture lanes.' },
  off: { ...Type.Boolean(), description: 'Not seen, or not heard.' },
  solo: {
    ...Type.Boolean(),
    description:
      'While any lane of its family (picture or sound) has this, only those that have it are ' +
      'seen or heard.',
  },
  locked: Type.Boolean(),
  height: numberSetting({
    label: 'Height',
    description: 'Factor on the usual height of its kind on the timeline.',
    unit: '×',
    min: 0.5,
    max: 4,
    step: 0.25,
    fallback: 1,
  }),
  clips: Type.Array(Clip, {
    maxItems: 20000,
    description: 'Ordered by start, never overlapping.',
  }),
});
export type Lane = Static<typeof Lane>;

/** Clips that count as one item. */
export const ClipGroup = strict({ id: Id, name: Type.String({ maxLength: 200 }) });
export type ClipGroup = Static<typeof ClipGroup>;
