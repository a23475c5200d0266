/** A moment of the timeline: what each corner costs, and whether this is no time to move. */
export interface CornerMoment {
  readonly costs: readonly number[];
  readonly busy: boolean;
}

/** Going to another corner costs as much as hiding text all over for so many seconds. */
const MOVE = 5;
/** And so much more while something happens. */
const BUSY = 12;

/**
 * The corner for each moment with which all cost least, moves included: by dynamic programming over
 * the moments (Viterbi, 1967). Where the presenter is not placed in a corner, a null, nothing is
 * said: it begins anew after that.
 *
 * @param home the corner of those moments, and before the first
 * @returns an index for each moment
 */
export function cheapestCorners(
  moments: readonly (CornerMoment | null)[],
  home: number,
): readonly number[] {
  const corners = moments.find((one) => one)?.costs.length ?? 0;
  if (!corners) return moments.map(() => home);
  const from: Int8Array[] = [];
  // Whoever begins elsewhere has moved.
  let costs = Float64Array.from({ length: corners }, (_, c) => (c === home ? 0 : MOVE));
  for (const moment of moments) {
    const back = new Int8Array(corners);
    const next = new Float64Array(corners);
    let cheapest = 0;
    for (let c = 1; c < corners; c++) if (costs[c]! < costs[cheapest]!) cheapest = c;
    const move = moment ? MOVE + (moment.busy ? BUSY : 0) : 0;
    for (let c = 0; c < corners; c++) {
      const moved = costs[cheapest]! + move < costs[c]!;
      back[c] = moved ? cheapest : c;
      next[c] = (moved ? costs[cheapest]! + move : costs[c]!) + (moment?.costs[c] ?? 0);
    }
    from.push(back);
    costs = next;
  }
  let corner = home;
  for (let c = 0; c < corners; c++) if (costs[c]! < costs[corner]!) corner = c;
  const path: number[] = [];
  for (let i = moments.length - 1; i >= 0; i--) {
    path[i] = moments[i] ? corner : home;
    corner = from[i]![corner]!;
  }
  return path;
}
