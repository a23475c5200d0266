import { assertNever } from '../assert-never';
import { oneOf } from '../schema/parts';
import { numberSetting } from '../schema/setting';
import type { Range } from '../time/ranges';
import { frameDuration, secondsToTicks, type FrameRate, type Ticks } from '../time/ticks';

/** How a callout comes and goes. */
export const MOTIONS = ['none', 'fade', 'draw', 'grow', 'rise'] as const;
export type Motion = (typeof MOTIONS)[number];

const COMES: Readonly<Record<Motion, string>> = {
  none: 'At once',
  fade: 'Fades in',
  draw: 'Is drawn',
  grow: 'Grows',
  rise: 'Rises',
};
const GOES: Readonly<Record<Motion, string>> = {
  none: 'At once',
  fade: 'Fades out',
  draw: 'Is taken back',
  grow: 'Shrinks',
  rise: 'Sinks',
};

/** The course that what is drawn, grows or rises takes on its way. */
export const EASES = ['even', 'soft', 'swing'] as const;
export type Ease = (typeof EASES)[number];

/** How a callout of most kinds comes and goes unless something else is wanted. */
export const USUAL_MOTION = { entrance: 'fade', exit: 'fade', pace: 0.2, ease: 'soft' } as const;

const pace = numberSetting({
  label: 'Takes',
  description: 'Seconds in which it comes, and in which it goes.',
  unit: 's',
  min: 0.05,
  max: 5,
  step: 0.05,
  fallback: USUAL_MOTION.pace,
  usual: [0.05, 1.5],
});

const ease = oneOf(EASES, {
  title: 'Moves',
  labels: ['Evenly', 'Slowing down', 'Past its place and back'],
  default: USUAL_MOTION.ease,
  description: 'How what is drawn, grows or rises goes on its way.',
});

const motionSettings = <const M extends Motion>(motions: readonly M[], usual: M) => {
  const labels = (words: Readonly<Record<Motion, string>>) => motions.map((m) => words[m]);
  return {
    entrance: oneOf(motions, { title: 'Comes', labels: labels(COMES), default: usual }),
    exit: oneOf(motions, { title: 'Goes', labels: labels(GOES), default: usual }),
    pace,
    ease,
  };
};

/** The settings of how a callout comes and goes. */
export const motionProperties = motionSettings(['none', 'fade', 'grow', 'rise'], 'fade');
/** The same of one that is made of lines. */
export const drawnMotionProperties = motionSettings(MOTIONS, 'fade');

/** How a callout comes and goes, and its time. */
export interface Moving extends Range {
  readonly entrance: Motion;
  readonly exit: Motion;
  /** Seconds. */
  readonly pace: number;
  readonly ease: Ease;
}

/** What is there of a callout while it comes and goes. */
export interface Appearance {
  /** Opacity, 0 to 1. */
  readonly presence: number;
  /** The share of its lines that is drawn, 0 to 1. */
  readonly drawn: number;
  /** Its size as a share of what it will be. */
  readonly size: number;
  /** How far it stands below its place, as a share of the picture's height. */
  readonly below: number;
}

/** A callout that is wholly there. */
export const WHOLLY: Appearance = { presence: 1, drawn: 1, size: 1, below: 0 };

const GONE: Appearance = { ...WHOLLY, presence: 0 };
/** As a share of the picture's height, the way that one which rises or sinks takes. */
const RISE = 0.04;

/** Coming and going never take more than a third of the time that a callout has. */
const stretchOf = ({ start, end, pace }: Pick<Moving, 'start' | 'end' | 'pace'>): Ticks =>
  Math.min(secondsToTicks(pace), (end - start) / 3);

/** How far beyond its end a swing goes: a tenth of the way. */
const SWING = 1.70158;

/** The share of a way that is behind after a share of its time; a swing goes beyond 1. */
function eased(ease: Ease, u: number): number {
  switch (ease) {
    case 'even':
      return u;
    case 'soft':
      return 1 - (1 - u) ** 3;
    case 'swing':
      return 1 + (SWING + 1) * (u - 1) ** 3 + SWING * (u - 1) ** 2;
    default:
      return assertNever(ease);
  }
}

/** What is there of a callout of which a share of its coming, 0 to 1, has passed. */
function withMotion(motion: Motion, ease: Ease, share: number): Appearance {
  switch (motion) {
    case 'none':
      return WHOLLY;
    case 'fade':
      return { ...WHOLLY, presence: share };
    case 'draw':
      return { ...WHOLLY, drawn: Math.min(1, eased(ease, share)) };
    case 'grow':
      return { ...WHOLLY, presence: Math.min(1, 2 * share), size: eased(ease, share) };
    case 'rise':
      return { ...WHOLLY, presence: share, below: RISE * (1 - eased(ease, share)) };
    default:
      return assertNever(motion);
  }
}

/**
 * What is there of a callout at an instant: it comes over its pace, stays, and goes as if time ran
 * back. Each takes a third of its length if that is shorter.
 */
export function appearanceAt(item: Moving, time: Ticks): Appearance {
  const { start, end, entrance, exit, ease } = item;
  if (time < start || time >= end) return GONE;
  const stretch = stretchOf(item);
  if (time - start < stretch) return withMotion(entrance, ease, (time - start) / stretch);
  return withMotion(exit, ease, Math.min(1, (end - time) / stretch));
}

/** The first frame at which a callout is wholly there, in ticks. */
export function fullySeenFrom(
  item: Pick<Moving, 'start' | 'end'> & Partial<Moving>,
  rate: FrameRate,
): Ticks {
  const frame = frameDuration(rate);
  const stretch = item.entrance === 'none' ? 0 : stretchOf({ pace: USUAL_MOTION.pace, ...item });
  return Math.ceil((item.start + stretch) / frame) * frame;
}
