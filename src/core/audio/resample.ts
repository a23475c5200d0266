import { silence } from './mix';
import { readAnywhere, type ReadSound } from './read-sound';

/** Samples on each side of a place that have a part in it. */
const SIDE = 16;
/** Places between two samples for which weights are kept; between those they are mixed. */
const PHASES = 256;

/** Weights of the samples around each phase: a sinc in Blackman's window, which sum to 1. */
const WEIGHTS = Array.from({ length: PHASES + 1 }, (_, phase) => {
  const weights = Float64Array.from({ length: 2 * SIDE }, (__, i) => {
    const x = i - SIDE + 1 - phase / PHASES;
    const window =
      0.42 + 0.5 * Math.cos((Math.PI * x) / SIDE) + 0.08 * Math.cos((2 * Math.PI * x) / SIDE);
    return (Math.abs(x) < 1e-9 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x)) * window;
  });
  const sum = weights.reduce((all, weight) => all + weight, 0);
  return weights.map((weight) => weight / sum);
});

/**
 * Reads a recording by another clock, one that runs a few ten thousandths faster or slower: each
 * sample from those around its place, as `Stereo` of the same rate (J. O. Smith, Digital Audio
 * Resampling, windowed-sinc interpolation). Pitch goes along, by less than can be heard.
 *
 * @param source sample of the recording that output sample 0 stands for
 * @param speed recording samples for one output sample, about 1
 */
export function resampled(read: ReadSound, source: number, speed: number): ReadSound {
  return async (from, count) => {
    const first = Math.floor(source + from * speed) - SIDE + 1;
    const last = Math.floor(source + (from + count - 1) * speed) + SIDE;
    const sound = await readAnywhere(read, first, last - first + 1);
    const out = silence(count);
    for (let i = 0; i < count; i++) {
      const place = source + (from + i) * speed;
      const whole = Math.floor(place);
      const phase = (place - whole) * PHASES;
      const [low, u] = [Math.floor(phase), phase % 1];
      const [a, b] = [WEIGHTS[low]!, WEIGHTS[low + 1]!];
      const start = whole - SIDE + 1 - first;
      for (const side of [0, 1] as const) {
        const samples = sound[side];
        let sum = 0;
        for (let k = 0; k < 2 * SIDE; k++)
          sum += (samples[start + k] ?? 0) * (a[k]! + (b[k]! - a[k]!) * u);
        out[side][i] = sum;
      }
    }
    return out;
  };
}
