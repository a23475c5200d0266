import type { Found } from '@/core/vision/pointer-path';

/** In so many pictures the pointer was thought to be seen before it is told to be lost. */
const SEEN_AT_FIRST = 2;
/** Stretches that are looked at again begin and end with so many pictures that were sure. */
const LEAD = 20;
/** Stretches nearer to each other than this are looked at as one. */
const JOIN = 45;

/** Pictures of a recording, from one up to another. */
export interface Run {
  readonly from: number;
  readonly to: number;
}

/**
 * The pictures of all stretches in which the pointer is lost, and was thought to be seen in some at
 * first.
 *
 * @param seen whether it was thought to be seen, picture by picture
 */
export function lostAfterAll(seen: readonly boolean[], path: readonly Found[]): Set<number> {
  const pictures = new Set<number>();
  for (let from = 0; from < path.length; from++) {
    let to = from;
    while (to < path.length && !path[to]!.at) to++;
    const stretch = Array.from({ length: to - from }, (_, i) => from + i);
    if (stretch.filter((i) => seen[i]).length >= SEEN_AT_FIRST)
      for (const i of stretch) pictures.add(i);
    from = to;
  }
  return pictures;
}

/** Runs of pictures of which something is wanted, with some around. */
export function runsOf(count: number, wanted: (index: number) => boolean): Run[] {
  const runs: Run[] = [];
  for (let i = 0; i < count; i++) {
    if (!wanted(i)) continue;
    const [from, to] = [Math.max(0, i - LEAD), Math.min(count, i + LEAD)];
    const last = runs[runs.length - 1];
    if (last && from <= last.to + JOIN) runs[runs.length - 1] = { from: last.from, to };
    else runs.push({ from, to });
  }
  return runs;
}
