import type { Luma } from './luma';

/** What edges there are in a picture, and which of them may be text. */
export interface Edges {
  readonly width: number;
  readonly height: number;
  /** Steps to the right and down, signed, in code values. */
  readonly dx: Int16Array;
  readonly dy: Int16Array;
  /** 1 where a step is strong for what is around it. */
  readonly strong: Uint8Array;
}

/** Weaker steps are noise. */
const LEAST = 14;
/** A step is strong if it is this share of the strongest around it. */
const SHARE = 1 / 3;
const BLOCK = 8;

/**
 * The steps from each sample to the next ones, and which of them are strong: at least a third of the
 * strongest within the blocks of 8x8 samples around them, so that pale text is found on a page with
 * black text too.
 */
export function edgesOf({ data, stride, width, height }: Luma): Edges {
  const dx = new Int16Array(width * height);
  const dy = new Int16Array(width * height);
  const across = Math.ceil(width / BLOCK);
  const down = Math.ceil(height / BLOCK);
  const most = new Uint8Array(across * down);
  const steps = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    const beneath = y + 1 < height ? stride : 0;
    const blocks = (y >> 3) * across;
    let from = y * stride;
    let at = y * width;
    for (let x = 0; x < width; x++, from++, at++) {
      const here = data[from]!;
      // The last of a row has no step to the right.
      const right = (x + 1 < width ? data[from + 1]! : here) - here;
      const below = data[from + beneath]! - here;
      if (!right && !below) continue;
      dx[at] = right;
      dy[at] = below;
      const a = right < 0 ? -right : right;
      const b = below < 0 ? -below : below;
      const step = a > b ? a : b;
      steps[at] = step;
      if (step > most[blocks + (x >> 3)]!) most[blocks + (x >> 3)] = step;
    }
  }
  const least = new Uint8Array(across * down);
  for (let row = 0; row < down; row++)
    for (let column = 0; column < across; column++) {
      let best = 0;
      for (let v = Math.max(0, row - 1); v <= Math.min(down - 1, row + 1); v++)
        for (let u = Math.max(0, column - 1); u <= Math.min(across - 1, column + 1); u++)
          best = Math.max(best, most[v * across + u]!);
      least[row * across + column] = Math.max(LEAST, best * SHARE);
    }
  const strong = new Uint8Array(width * height);
  for (let y = 0, at = 0; y < height; y++) {
    const blocks = (y >> 3) * across;
    for (let x = 0; x < width; x++, at++)
      if (steps[at]! > least[blocks + (x >> 3)]!) strong[at] = 1;
  }
  return { width, height, dx, dy, strong };
}

/** A straight edge: `from` to `to` along it, `at` across it. */
export interface Run {
  readonly at: number;
  readonly from: number;
  readonly to: number;
}

/** Steps of a straight edge are at least so strong. */
const EDGE = 6;

/**
 * Straight edges, as runs of steps of one sign.
 *
 * @param along `x` for edges that lie level, `y` for those that stand
 * @param least so many samples long at least
 */
export function runsOf({ width, height, dx, dy }: Edges, along: 'x' | 'y', least: number): Run[] {
  const steps = along === 'x' ? dy : dx;
  const [length, count] = along === 'x' ? [width, height] : [height, width];
  const [step, leap] = along === 'x' ? [1, width] : [width, 1];
  const runs: Run[] = [];
  for (let at = 0; at < count; at++) {
    let from = 0;
    let sign = 0;
    for (let i = 0; i <= length; i++) {
      const value = i < length ? steps[at * leap + i * step]! : 0;
      const now = value > EDGE ? 1 : value < -EDGE ? -1 : 0;
      if (now === sign && i < length) continue;
      if (sign && i - from >= least) runs.push({ at, from, to: i });
      from = i;
      sign = now;
    }
  }
  return runs;
}
