/*
 * Weights for resampling, made anew for every picture of a moving view. The same arithmetic as `filterTable` in core/scale/filter, in
 * the same order, so that both give the same weights to the bit.
 */
const UNIT: f64 = 16384;

/**
 * Fills the starts (32 bits) and weights (Q14, `taps` each) of `count` output samples of one axis. `kernel` holds the window at
 * `steps` places a lobe as 64-bit floats, `lobes * steps + 1` of them; `exact` has room for `taps` such numbers.
 */
export function fillFilter(
  length: i32, origin: f64, span: f64, count: i32, mirror: i32, taps: i32, lobes: i32, steps: i32, kernel: usize,
  exact: usize, starts: usize, weights: usize,
): void {
  const step = span / <f64>count;
  const stretch = max<f64>(1, step);
  const support = <f64>lobes * stretch;
  const end = lobes * steps;
  for (let i = 0; i < count; i++) {
    const center = origin + (<f64>i + 0.5) * step;
    const first = <i32>floor(center - support + 0.5);
    const start = max(0, min(first, length - taps));
    memory.fill(exact, 0, <usize>taps << 3);
    let sum: f64 = 0;
    for (let k = 0; k < taps; k++) {
      const place = <i32>floor(abs((<f64>(first + k) + 0.5 - center) / stretch) * <f64>steps + 0.5);
      const weight: f64 = place <= end ? load<f64>(kernel + (<usize>place << 3)) : 0;
      const position = min(max(first + k, 0), length - 1);
      const slot = exact + (<usize>min(position - start, taps - 1) << 3);
      store<f64>(slot, load<f64>(slot) + weight);
      sum += weight;
    }
    const at = mirror ? count - 1 - i : i;
    store<i32>(starts + (<usize>at << 2), start);
    const out = weights + <usize>(at * taps * 2);
    let total = 0;
    let largest = 0;
    let peak: f64 = -1;
    for (let k = 0; k < taps; k++) {
      const one = load<f64>(exact + (<usize>k << 3));
      const value = <i32>floor((one / sum) * UNIT + 0.5);
      store<i16>(out + (<usize>k << 1), <i16>value);
      total += value;
      if (abs(one) > peak) {
        peak = abs(one);
        largest = k;
      }
    }
    const slot = out + (<usize>largest << 1);
    store<i16>(slot, <i16>(<i32>load<i16>(slot) + <i32>UNIT - total));
  }
}
