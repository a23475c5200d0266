import { shiftAt, type FollowPath, type Shift } from './follow-path';

/** A stretch of a recording, in its milliseconds; its end is not part of it. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

type Run = FollowPath['runs'][number];
type Place = Run['places'][number];

/** The place that holds at a time of a run. */
const heldAt = ({ places }: Run, ms: number): Place =>
  places.findLast(([from]) => from <= ms) ?? places[0]!;

/** A part of a run; null where it has none of it. */
function partOf(run: Run, { from, to }: Stretch): Run | null {
  const [start, end] = [Math.max(run.from, from), Math.min(run.to, to)];
  if (start >= end) return null;
  const [, ...held] = heldAt(run, start);
  const later = run.places.filter(([ms]) => ms > start && ms < end);
  return { from: start, to: end, places: [[start, ...held], ...later] };
}

/** A run that follows another at once is one with it. */
function joined(runs: readonly Run[]): Run[] {
  const all: Run[] = [];
  for (const run of runs) {
    const last = all[all.length - 1];
    if (last?.to !== run.from) all.push(run);
    else {
      const [, ...before] = last.places[last.places.length - 1]!;
      const [[, ...first], ...rest] = run.places as [Place, ...Place[]];
      const more = String(before) === String(first) ? rest : run.places;
      all[all.length - 1] = { from: last.from, to: run.to, places: [...last.places, ...more] };
    }
  }
  return all;
}

/** The stretch around an instant in which followed content rests where it is, or is not seen. */
export function restAround(path: FollowPath, ms: number): Stretch {
  const at = Math.min(Math.max(ms, path.from), path.to);
  // Times of pictures are rounded: which run it is follows what is shown.
  const run = path.runs.findLast(({ from, to }) => from <= at + 0.5 && at + 0.5 < to);
  if (run) {
    const next = run.places.find(([from]) => from > at + 0.5);
    return { from: Math.max(run.from, heldAt(run, at + 0.5)[0]), to: next?.[0] ?? run.to };
  }
  const ends = path.runs.map(({ to }) => to).filter((to) => to <= at + 0.5);
  const begins = path.runs.map(({ from }) => from).filter((from) => from > at + 0.5);
  return { from: Math.max(path.from, ...ends), to: Math.min(path.to, ...begins) };
}

/** A path whose places in a stretch are moved by so many pixels of the recording, and sure then. */
export function movedPath(
  path: FollowPath,
  stretch: Stretch,
  { dx, dy }: Pick<Shift, 'dx' | 'dy'>,
): FollowPath {
  const runs = path.runs.flatMap((run) => {
    const own = partOf(run, stretch);
    if (!own) return [run];
    const moved = {
      ...own,
      places: own.places.map(([ms, x, y, scale]): Place => [ms, x + dx, y + dy, scale, 1]),
    };
    const before = partOf(run, { from: run.from, to: stretch.from });
    const after = partOf(run, { from: stretch.to, to: run.to });
    return joined([before, moved, after].filter((part) => part !== null));
  });
  return { ...path, runs };
}

/** A path in which followed content is not seen in a stretch. */
export const hiddenPath = (path: FollowPath, { from, to }: Stretch): FollowPath => ({
  ...path,
  runs: path.runs.flatMap((run) =>
    [partOf(run, { from: run.from, to: from }), partOf(run, { from: to, to: run.to })].filter(
      (part) => part !== null,
    ),
  ),
});

/**
 * A path in which followed content is seen all through a stretch, where it was last before it, or
 * else where it is first after it: a place to begin with for who knows better.
 */
export function shownPath(path: FollowPath, { from, to }: Stretch): FollowPath {
  const before = path.runs.filter((run) => run.from < from).map((run) => heldAt(run, from - 1));
  const after = path.runs.filter((run) => run.from >= to).map(({ places }) => places[0]!);
  const held = shiftAt(path, from);
  const [, dx, dy, scale] = before.at(-1) ?? after[0] ?? [0, 0, 0, 1];
  const place: Place = held ? [from, held.dx, held.dy, held.scale, 1] : [from, dx, dy, scale, 1];
  const runs = [...hiddenPath(path, { from, to }).runs, { from, to, places: [place] }];
  return { ...path, runs: joined(runs.sort((a, b) => a.from - b.from)) };
}
