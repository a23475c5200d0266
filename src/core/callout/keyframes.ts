import { Type, type Static } from '@sinclair/typebox';
import { strict } from '../schema/parts';
import { numberSetting, shareSetting } from '../schema/setting';
import type { Ticks } from '../time/ticks';

/*
 * Where a callout is in the course of its time. Its kind says what it is; its pose says how far that
 * is moved, sized, turned and seen through. A pose can be kept at several instants: between two it
 * goes over from one to the other, slowly at both ends; before the first and after the last it
 * rests.
 */

const POSE = {
  dx: Type.Number({ description: 'To the right, in pixels of what it stands on.' }),
  dy: Type.Number({ description: 'Down, in pixels of what it stands on.' }),
  size: numberSetting({
    label: 'Scale',
    description: 'About its spot, as a share of what it is.',
    unit: '%',
    min: 0.1,
    max: 10,
    step: 0.01,
    factor: 100,
    fallback: 1,
    usual: [0.1, 4],
  }),
  turn: numberSetting({
    label: 'Turned',
    description: 'Degrees about its spot, clockwise.',
    unit: '°',
    min: -3600,
    max: 3600,
    step: 1,
    fallback: 0,
    usual: [-180, 180],
  }),
  opacity: shareSetting('Opacity', 1),
};

/** How a callout is moved, sized, turned and seen through. */
export const Pose = strict(POSE);
export type Pose = Static<typeof Pose>;

/** The pose of a callout at an instant of its time. */
export const Keyframe = strict({
  at: Type.Integer({
    minimum: -Number.MAX_SAFE_INTEGER,
    maximum: Number.MAX_SAFE_INTEGER,
    description: 'Ticks after the start of the callout; below 0 where it was trimmed.',
  }),
  ...POSE,
});
export type Keyframe = Static<typeof Keyframe>;

/** The pose of a callout that is as its kind says. */
export const AS_IT_IS: Pose = { dx: 0, dy: 0, size: 1, turn: 0, opacity: 1 };

/** Whether a pose changes nothing. */
export const isPlain = ({ dx, dy, size, turn, opacity }: Pose): boolean =>
  dx === 0 && dy === 0 && size === 1 && turn === 0 && opacity === 1;

/** What all callouts have of it. */
export const poseProperties = {
  pose: { ...Pose, description: 'Holds throughout where none is kept at an instant.' },
  keyframes: Type.Array(Keyframe, {
    maxItems: 500,
    description: 'Poses that are kept, ordered by time.',
  }),
};

/** What a new callout has of it. */
export const UNPOSED = { pose: AS_IT_IS, keyframes: [] as Keyframe[] };

/** The poses of a callout. */
export interface Posed {
  readonly pose: Pose;
  readonly keyframes: readonly Keyframe[];
}

/** Slow at both ends, 0 to 1 (smoothstep). */
const smooth = (u: number): number => u * u * (3 - 2 * u);

const between = (a: number, b: number, share: number): number => a + (b - a) * share;

/** Halfway is as many times as large as one as it is smaller than the other. */
const betweenSizes = (a: number, b: number, share: number): number => a * (b / a) ** share;

const poseOf = ({ dx, dy, size, turn, opacity }: Pose): Pose => ({ dx, dy, size, turn, opacity });

/**
 * How a callout is moved, sized, turned and seen through at an instant.
 *
 * @param at ticks after its start
 */
export function poseAt({ pose, keyframes }: Posed, at: Ticks): Pose {
  const last = keyframes[keyframes.length - 1];
  if (!last) return pose;
  const next = keyframes.findIndex((one) => one.at > at);
  if (next < 0) return poseOf(last);
  const [a, b] = [keyframes[next - 1], keyframes[next]!];
  if (!a) return poseOf(b);
  const share = smooth((at - a.at) / (b.at - a.at));
  return {
    dx: between(a.dx, b.dx, share),
    dy: between(a.dy, b.dy, share),
    size: betweenSizes(a.size, b.size, share),
    turn: between(a.turn, b.turn, share),
    opacity: between(a.opacity, b.opacity, share),
  };
}

/** The pose that is kept at an instant, or so near to it. */
export const keptAt = (
  keyframes: readonly Keyframe[],
  at: Ticks,
  near: Ticks,
): Keyframe | undefined => keyframes.find((one) => Math.abs(one.at - at) <= near);

/**
 * A callout with its pose at an instant kept there; as it was where one is kept already.
 *
 * @param at ticks after its start
 * @param near poses so many ticks away count as there: half a frame
 */
export function keeping({ pose, keyframes }: Posed, at: Ticks, near: Ticks): Posed {
  if (keptAt(keyframes, at, near)) return { pose, keyframes };
  const kept = { at, ...poseOf(poseAt({ pose, keyframes }, at)) };
  return { pose, keyframes: [...keyframes, kept].sort((a, b) => a.at - b.at) };
}

/**
 * A callout with a change of its pose: throughout, or, where poses are kept, of the one that is kept
 * at the instant or is kept there with it.
 */
export function withPose(posed: Posed, at: Ticks, change: Partial<Pose>, near: Ticks): Posed {
  if (!posed.keyframes.length) return { ...posed, pose: { ...posed.pose, ...change } };
  const { pose, keyframes } = keeping(posed, at, near);
  const here = keptAt(keyframes, at, near);
  return {
    pose,
    keyframes: keyframes.map((one) => (one === here ? { ...one, ...change } : one)),
  };
}

/** A callout of which the pose is no longer kept at an instant; of the last one it holds throughout. */
export function dropping({ pose, keyframes }: Posed, at: Ticks): Posed {
  const rest = keyframes.filter((one) => one.at !== at);
  const last = keyframes.find((one) => one.at === at);
  return { pose: last && !rest.length ? poseOf(last) : pose, keyframes: rest };
}

/**
 * Poses of a callout whose time was changed, each where its instant of the timeline went; of those
 * that fall on one the last stays.
 *
 * @param from where the callout started
 * @param to where it starts now
 */
export function mappedKeyframes(
  keyframes: readonly Keyframe[],
  from: Ticks,
  to: Ticks,
  map: (time: Ticks) => Ticks,
): Keyframe[] {
  const all = keyframes.map((one) => ({ ...one, at: map(from + one.at) - to }));
  return all.filter((one, i) => all[i + 1]?.at !== one.at);
}

/** Poses at the same instants of the timeline, of a callout that now starts so much later. */
export const startingLater = (keyframes: readonly Keyframe[], by: Ticks): Keyframe[] =>
  keyframes.map((one) => ({ ...one, at: one.at - by }));
