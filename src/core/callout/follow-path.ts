import { Type, type Static } from '@sinclair/typebox';
import { countFront } from '../bisect';
import { strict, type Point } from '../schema/parts';

const Ms = Type.Number({ minimum: 0, maximum: Number.MAX_SAFE_INTEGER });

/**
 * Where content lies from an instant on, until the next place: how far each of its points went, as
 * the factor of its size and a shift in pixels (`x * scale + dx`), and whether it is seen there.
 */
const Place = Type.Tuple([
  Ms,
  Type.Number({ minimum: -100_000, maximum: 100_000 }),
  Type.Number({ minimum: -100_000, maximum: 100_000 }),
  Type.Number({ minimum: 0.05, maximum: 20 }),
  Type.Integer({ minimum: 0, maximum: 1 }),
]);

/** A time in which content may be seen, with its places in order of time. */
const Run = strict({
  from: Ms,
  to: Ms,
  places: Type.Array(Place, { minItems: 1, maxItems: 100_000 }),
});

/** Where a part of a recording went, as it was found in its pictures; in the recording's time. */
export const FollowPath = strict({
  /** When it lay where it was marked, in milliseconds. */
  ms: Ms,
  /** The time that was looked through. */
  from: Ms,
  to: Ms,
  /** From one picture that was looked at to the next. */
  step: Type.Number({ minimum: 1, maximum: 10_000 }),
  /** The recording in which it was found: its size in pixels, and how long it is. */
  of: strict({ width: Type.Number(), height: Type.Number(), length: Ms }),
  runs: Type.Array(Run, { maxItems: 10_000 }),
});
export type FollowPath = Static<typeof FollowPath>;

/** How far content went from where it was marked. */
export interface Shift {
  readonly dx: number;
  readonly dy: number;
  readonly scale: number;
  /** Whether it is seen there; else it may be. */
  readonly sure: boolean;
}

/** Where a point of followed content lies. */
export const shiftedPoint = ({ x, y }: Point, { dx, dy, scale }: Shift): Point => ({
  x: x * scale + dx,
  y: y * scale + dy,
});

type PlaceOf = FollowPath['runs'][number]['places'][number];

const shiftOf = ([, dx, dy, scale, sure]: PlaceOf): Shift => ({ dx, dy, scale, sure: sure === 1 });

/** The number of the last place that has begun by some time; the first one before that. */
const placeAt = ({ places }: FollowPath['runs'][number], ms: number): number =>
  Math.max(0, countFront(places, ([from]) => from <= ms) - 1);

/** Lengths of one recording differ by less, in milliseconds. */
const SAME_LENGTH = 50;

/** Whether a path was found in another recording than the one that is there now. */
export const isOfAnother = (
  { of }: FollowPath,
  now: { readonly width: number; readonly height: number; readonly length: number },
): boolean =>
  of.width !== now.width ||
  of.height !== now.height ||
  Math.abs(of.length - now.length) > SAME_LENGTH;

/** The time in which followed content is seen or may be, in milliseconds. */
export function timeInSight({ runs }: FollowPath): number {
  let [sum, until] = [0, -Infinity];
  // Runs may overlap, where it may be at several places.
  for (const { from, to } of [...runs].sort((a, b) => a.from - b.from)) {
    sum += Math.max(0, to - Math.max(from, until));
    until = Math.max(until, to);
  }
  return sum;
}

/** Within so many milliseconds times are the same: those of pictures are rounded. */
const SLACK = 0.5;

/**
 * How far followed content went by some time of its recording; null where it is not seen. Nothing is
 * put between two places: content that jumps is never anywhere on the way.
 */
export function shiftAt(path: FollowPath, ms: number): Shift | null {
  const at = Math.min(Math.max(ms, path.from), path.to - 2 * SLACK) + SLACK;
  const run = path.runs.findLast(({ from, to }) => from <= at && at < to);
  return run ? shiftOf(run.places[placeAt(run, at)]!) : null;
}

/**
 * All places at which followed content may be around some time of its recording, within one picture
 * of it: which of two pictures is shown is a matter of rounding. Before and after what was looked
 * through it may be where it was first and last.
 */
export function shiftsAround(path: FollowPath, ms: number): Shift[] {
  const at = Math.min(Math.max(ms, path.from), path.to);
  const [first, last] = [at - path.step - SLACK, at + path.step + SLACK];
  const found = new Map<string, Shift>();
  for (const run of path.runs) {
    if (run.to <= first || run.from > last) continue;
    for (let i = placeAt(run, first); i <= placeAt(run, last); i++) {
      const shift = shiftOf(run.places[i]!);
      found.set(`${shift.dx} ${shift.dy} ${shift.scale}`, shift);
    }
  }
  return [...found.values()];
}
