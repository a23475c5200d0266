import { median } from '../median';
import { countFront } from '../bisect';
import type { PointerSample, PointerTrack } from '../telemetry/pointer-track';
import { pointerAt } from '../telemetry/sample';

interface Knot {
  readonly t: number;
  readonly x: number;
  readonly y: number;
  /** Has to stay where it is: something was pressed or let go there. */
  readonly pinned: boolean;
}

/** How far the steadied pointer may be from the real one at full strength, per 1920 px of width. */
const WIDEST = 14;
/** What stays within a tolerance for so long, in ms, is a rest. */
const REST_MS = 250;
/** Presses of one rest count as one place while they are so near, in px. */
const SAME_PLACE = 0.5;
/** Stretches are taken apart so long at most, which bounds the work. */
const STRETCH = 2048;

/**
 * By how many footage pixels a steadied pointer may lie beside the real one.
 *
 * @param strength 0 to 1
 */
export const steadyTolerance = ({ width }: PointerTrack, strength: number): number =>
  (strength * WIDEST * width) / 1920;

/** The samples of a track with those of its presses, which stay where they are. */
function knotsOf(track: PointerTrack): Knot[] {
  const pins = track.events
    .filter(({ type }) => type === 'down' || type === 'up')
    .map(({ t }) => ({ t, ...pointerAt(track, t), pinned: true }));
  const all = track.samples.map(([t, x, y]: PointerSample) => ({ t, x, y, pinned: false }));
  // A pin takes the place of a sample of the same instant.
  const pinned = new Set(pins.map(({ t }) => t));
  return [...all.filter(({ t }) => !pinned.has(t)), ...pins]
    .sort((a, b) => a.t - b.t)
    .filter(({ t }, i, list) => i === 0 || t > list[i - 1]!.t);
}

/** Where a rest is to stand still; null where two of its presses were at different places. */
function placeOf(rest: readonly Knot[]): { x: number; y: number } | null {
  const pins = rest.filter(({ pinned }) => pinned);
  const [first] = pins;
  if (!first) return { x: median(rest.map(({ x }) => x)), y: median(rest.map(({ y }) => y)) };
  const together = pins.every(({ x, y }) => Math.hypot(x - first.x, y - first.y) <= SAME_PLACE);
  return together ? { x: first.x, y: first.y } : null;
}

/** Makes the pointer stand still where it only fidgets. */
function withoutFidgets(knots: readonly Knot[], tolerance: number): Knot[] {
  const still: Knot[] = [];
  for (let i = 0; i < knots.length;) {
    let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, -Infinity];
    let end = i;
    for (; end < knots.length; end++) {
      const { x, y } = knots[end]!;
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
      if (Math.max(right - left, bottom - top) > tolerance) break;
    }
    const rest = knots.slice(i, end);
    if (rest.at(-1)!.t - rest[0]!.t < REST_MS) {
      still.push(knots[i]!);
      i++;
      continue;
    }
    const place = placeOf(rest);
    for (const knot of rest) still.push(place && !knot.pinned ? { ...knot, ...place } : knot);
    i = end;
  }
  return still;
}

/**
 * The few knots between which the pointer goes straight and evenly, with none of the others further
 * than a tolerance from where it then is at its time (the top-down time-ratio method of N. Meratnia
 * and R. A. de By, 2004).
 */
function simplified(knots: readonly Knot[], tolerance: number): Knot[] {
  const kept = new Set<number>([0, knots.length - 1]);
  knots.forEach(({ pinned }, i) => {
    if (pinned || i % STRETCH === 0) kept.add(i);
  });
  const ends = [...kept].sort((a, b) => a - b);
  const open = ends.slice(1).map((to, i) => [ends[i]!, to] as const);
  for (let stretch = open.pop(); stretch; stretch = open.pop()) {
    const [from, to] = stretch;
    const [a, b] = [knots[from]!, knots[to]!];
    let farthest = tolerance;
    let at = -1;
    for (let i = from + 1; i < to; i++) {
      const { t, x, y } = knots[i]!;
      const u = (t - a.t) / (b.t - a.t);
      const away = Math.hypot(a.x + (b.x - a.x) * u - x, a.y + (b.y - a.y) * u - y);
      if (away > farthest) [farthest, at] = [away, i];
    }
    if (at < 0) continue;
    kept.add(at);
    open.push([from, at], [at, to]);
  }
  return [...kept].sort((a, b) => a - b).map((i) => knots[i]!);
}

/**
 * Slopes of a curve through values that never overshoots them (F. N. Fritsch and J. Butland, 1984):
 * none where the direction turns, else a weighted harmonic mean of both sides.
 */
function slopes(times: readonly number[], values: readonly number[]): number[] {
  const step = (i: number) => times[i + 1]! - times[i]!;
  const secant = (i: number) => (values[i + 1]! - values[i]!) / step(i);
  return values.map((_, i) => {
    if (values.length < 2) return 0;
    if (i === 0) return secant(0);
    if (i === values.length - 1) return secant(i - 1);
    const [before, after] = [secant(i - 1), secant(i)];
    if (before * after <= 0) return 0;
    const [w1, w2] = [2 * step(i) + step(i - 1), step(i) + 2 * step(i - 1)];
    return (w1 + w2) / (w1 / before + w2 / after);
  });
}

/**
 * The most by which a cubic leaves its chord is this share of its length times its slope's excess.
 */
const BULGE = 4 / 27;

/**
 * Adds knots on the straight ways between knots, so near to these that rounding the way there
 * leaves it by no more than a tolerance.
 */
function withShoulders(knots: readonly Knot[], tolerance: number): Knot[] {
  const times = knots.map(({ t }) => t);
  const x = slopes(
    times,
    knots.map((knot) => knot.x),
  );
  const y = slopes(
    times,
    knots.map((knot) => knot.y),
  );
  return knots.flatMap((a, i) => {
    const b = knots[i + 1];
    if (!b) return [a];
    const length = b.t - a.t;
    const along = { x: (b.x - a.x) / length, y: (b.y - a.y) / length };
    const reach = (at: number) =>
      tolerance / (BULGE * Math.hypot(x[at]! - along.x, y[at]! - along.y));
    const shoulder = (t: number): Knot => ({
      ...{ t, x: a.x + along.x * (t - a.t), y: a.y + along.y * (t - a.t) },
      pinned: false,
    });
    const [first, last] = [reach(i), reach(i + 1)];
    return [
      a,
      ...(first < length / 2 ? [shoulder(a.t + first)] : []),
      ...(last < length / 2 ? [shoulder(b.t - last)] : []),
    ];
  });
}

type Path = (ms: number) => { x: number; y: number };

function pathOf(track: PointerTrack, strength: number): Path {
  const tolerance = steadyTolerance(track, strength);
  const knots = withShoulders(
    simplified(withoutFidgets(knotsOf(track), tolerance), tolerance),
    tolerance,
  );
  const times = knots.map(({ t }) => t);
  const coordinate = (values: readonly number[]) => {
    const slope = slopes(times, values);
    return (i: number, u: number, length: number) => {
      const [a, b] = [values[i]!, values[i + 1]!];
      const [h1, h2] = [u * u * (3 - 2 * u), u * (1 - u)];
      return a + (b - a) * h1 + h2 * length * ((1 - u) * slope[i]! - u * slope[i + 1]!);
    };
  };
  const x = coordinate(knots.map((knot) => knot.x));
  const y = coordinate(knots.map((knot) => knot.y));
  return (ms) => {
    const i = countFront(times, (t) => t <= ms) - 1;
    const edge = i < 0 ? knots[0]! : i >= knots.length - 1 ? knots.at(-1)! : null;
    if (edge) return { x: edge.x, y: edge.y };
    const length = times[i + 1]! - times[i]!;
    const u = (ms - times[i]!) / length;
    return { x: x(i, u, length), y: y(i, u, length) };
  };
}

/** Paths by track and strength: they are asked for with every picture. */
const paths = new WeakMap<PointerTrack, Map<number, Path>>();
/** While a slider is drawn, paths of strengths that nobody asks for again pile up. */
const KEPT = 8;

/**
 * Where the pointer is at a time in ms with its jitter and fidgets taken out. It passes exactly
 * where something was pressed or let go, goes through corners that are larger than the tolerance,
 * and stands still where it only fidgets.
 *
 * @param strength 0 leaves the track as it is; 1 allows `steadyTolerance` at its widest
 */
export function steadiedAt(
  track: PointerTrack,
  strength: number,
  ms: number,
): { x: number; y: number } {
  if (strength <= 0) return pointerAt(track, ms);
  const known = paths.get(track) ?? new Map<number, Path>();
  paths.set(track, known);
  let path = known.get(strength);
  if (!path) {
    if (known.size >= KEPT) known.clear();
    known.set(strength, (path = pathOf(track, strength)));
  }
  return path(ms);
}
