/**
 * For each output sample: the first source sample it draws from, and `taps` weights in Q14 that add
 * up to 16384.
 */
export interface FilterTable {
  readonly taps: number;
  readonly starts: Int32Array;
  readonly weights: Int16Array;
}

const UNIT = 16384;
const LOBES = 2;
const STEPS = 2048;
/**
 * Between 0.4 and 0.6 edges go from too soft to too hard: at this, scaled text is as steep as text
 * that is drawn at the size.
 */
const SHARPNESS = 0.45;

/** The cardinal cubic of two lobes. */
const cubic = (x: number) =>
  x < 1
    ? (2 - SHARPNESS) * x ** 3 + (SHARPNESS - 3) * x ** 2 + 1
    : -SHARPNESS * (x ** 3 - 5 * x ** 2 + 8 * x - 4);
/** The kernel for 0 to 2, tabled: tables are made anew for each picture of a moving view. */
const KERNEL = Float64Array.from({ length: LOBES * STEPS + 1 }, (_, i) =>
  i > 0 && i % STEPS === 0 ? 0 : cubic(i / STEPS),
);
/**
 * The window as the pixel kernels take it: its values at `steps` places a lobe, over `lobes` lobes.
 */
export const FILTER_WINDOW = { lobes: LOBES, steps: STEPS, values: KERNEL } as const;
const kernelAt = (x: number) => KERNEL[Math.round(Math.abs(x) * STEPS)] ?? 0;

/**
 * Weights for each output sample when `span` source samples become `count`; an even number, since
 * kernels take two at a time.
 */
export const filterTaps = (span: number, count: number): number =>
  Math.ceil(LOBES * Math.max(1, span / count)) * 2;

/**
 * Weights for resampling one axis of a plane by cubic convolution (R. G. Keys, "Cubic Convolution
 * Interpolation for Digital Image Processing", 1981), made as wide as the scale asks when it
 * shrinks, so that nothing aliases. Measured against text drawn at the output's size it beats the
 * windowed sinc of three lobes, whose edges ring (docs/performance.md).
 *
 * Output sample `i` sits at source position `origin + (i + 0.5) * span / count` (sample centres at
 * half-integers). Beyond the edge the outermost sample repeats. A mapping that is 1:1 on whole
 * samples comes out as a pure copy: one weight of 16384.
 *
 * @param length samples in the source, at least 1
 * @param origin left edge of the source range, in samples, may be a fraction
 * @param span width of the source range, above 0
 * @param count samples wanted, at least 1
 * @param mirror reverse the order of the output
 */
export function filterTable(
  length: number,
  origin: number,
  span: number,
  count: number,
  mirror = false,
): FilterTable {
  const step = span / count;
  const stretch = Math.max(1, step);
  const support = LOBES * stretch;
  const taps = filterTaps(span, count);
  const starts = new Int32Array(count);
  const weights = new Int16Array(count * taps);
  const exact = new Float64Array(taps);
  for (let i = 0; i < count; i++) {
    const center = origin + (i + 0.5) * step;
    const first = Math.floor(center - support + 0.5);
    // The window of taps must lie inside the source; what falls outside is folded onto the edge.
    const start = Math.max(0, Math.min(first, length - taps));
    exact.fill(0);
    let sum = 0;
    for (let k = 0; k < taps; k++) {
      const weight = kernelAt((first + k + 0.5 - center) / stretch);
      const position = Math.min(Math.max(first + k, 0), length - 1);
      exact[Math.min(position - start, taps - 1)]! += weight;
      sum += weight;
    }
    const at = mirror ? count - 1 - i : i;
    starts[at] = start;
    quantise(exact, sum, weights, at * taps);
  }
  return { taps, starts, weights };
}

/**
 * Rounds weights to Q14 and gives what rounding lost to the largest, so that flat areas stay flat.
 */
function quantise(exact: Float64Array, sum: number, out: Int16Array, offset: number) {
  let total = 0;
  let largest = 0;
  for (let k = 0; k < exact.length; k++) {
    const value = Math.round((exact[k]! / sum) * UNIT);
    out[offset + k] = value;
    total += value;
    if (Math.abs(exact[k]!) > Math.abs(exact[largest]!)) largest = k;
  }
  out[offset + largest]! += UNIT - total;
}

/** Samples that each way weigh on one that is resampled along any axes. */
const ACROSS = LOBES * 2;

/**
 * Weights for resampling that does not follow the source's axes and does not shrink it, by the same
 * kernel as `filterTable`: for each fraction of a sample down and across, in `phases` steps from 0
 * to 1, of the four by four samples that begin one above and to the left of the sample at or before
 * the place. Q14, rows first; each sixteen sum to 1, so that flat areas stay flat.
 */
export function squareTable(phases: number): Int16Array {
  const count = ACROSS * ACROSS;
  const weights = new Int16Array((phases + 1) ** 2 * count);
  const exact = new Float64Array(count);
  const at = (k: number, phase: number) => kernelAt(k - (LOBES - 1) - phase / phases);
  for (let down = 0; down <= phases; down++)
    for (let across = 0; across <= phases; across++) {
      let sum = 0;
      for (let k = 0; k < count; k++)
        sum += exact[k] = at(Math.floor(k / ACROSS), down) * at(k % ACROSS, across);
      quantise(exact, sum, weights, (down * (phases + 1) + across) * count);
    }
  return weights;
}

/** Whether a table only copies samples from `first` on. */
export function isCopy(table: FilterTable): { first: number } | null {
  const { taps, starts, weights } = table;
  let first = 0;
  for (let i = 0; i < starts.length; i++) {
    const k = weights.subarray(i * taps, (i + 1) * taps).indexOf(UNIT);
    if (k < 0) return null;
    if (i === 0) first = starts[0]! + k;
    else if (starts[i]! + k !== first + i) return null;
  }
  return { first };
}

/**
 * The chroma range that belongs to a luma range, along x, for 4:2:0 with chroma
 * sited on the left luma sample of each pair (MPEG-2 and H.264's default).
 * `scale` is source pixels for one output pixel.
 */
export const chromaRangeX = (origin: number, span: number, scale: number) => ({
  origin: origin / 2 + 0.25 * (1 - scale),
  span: span / 2,
});
