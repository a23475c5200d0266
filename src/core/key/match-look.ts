import type { FootageLook } from '../project/model';
import { BLACK, MIDDLE, RANGE, WARMEST } from './light';

/** The colours of a presenter in one picture: means and standard deviations, in code values. */
export interface TakeColors {
  readonly light: { readonly mean: number; readonly spread: number };
  /** Means of both colour differences from grey, and how far colours lie from their mean. */
  readonly color: { readonly u: number; readonly v: number; readonly spread: number };
}

/** Fewer pixels tell nothing. */
const LEAST = 200;

/**
 * The colours of what is opaque in a picture; null where hardly anything is. Colour differences lie at
 * half of the width and height.
 *
 * @param alpha opacity of each pixel, 0 to 255
 */
export function takeColors(
  { width, height }: { readonly width: number; readonly height: number },
  alpha: Uint8Array,
  y: Uint8Array,
  u: Uint8Array,
  v: Uint8Array,
): TakeColors | null {
  let count = 0;
  const sums = { y: 0, yy: 0, u: 0, v: 0, cc: 0 };
  for (let row = 0; row < height; row += 2)
    for (let x = 0; x < width; x += 2) {
      const i = row * width + x;
      if (alpha[i]! < 250) continue;
      const at = (row >> 1) * ((width + 1) >> 1) + (x >> 1);
      const [cu, cv] = [u[at]! - 128, v[at]! - 128];
      count++;
      sums.y += y[i]!;
      sums.yy += y[i]! ** 2;
      sums.u += cu;
      sums.v += cv;
      sums.cc += cu * cu + cv * cv;
    }
  if (count < LEAST) return null;
  const mean = (sum: number) => sum / count;
  const [my, mu, mv] = [mean(sums.y), mean(sums.u), mean(sums.v)];
  const deviation = (squares: number) => Math.sqrt(Math.max(0, squares));
  return {
    light: { mean: my, spread: deviation(mean(sums.yy) - my * my) },
    color: { u: mu, v: mv, spread: deviation(mean(sums.cc) - mu * mu - mv * mv) },
  };
}

/** What a look changes to bring one take to another. */
export type LookMatch = Pick<FootageLook, 'brightness' | 'contrast' | 'saturation' | 'temperature'>;

const clamp = (n: number, least: number, most: number) => Math.min(most, Math.max(least, n));
const hundredths = (n: number) => Math.round(n * 100) / 100;

/**
 * The look that brings the colours of one take to those of another, both as recorded: the same mean
 * and spread of light, the same spread of colours, and light as warm. It is bounded to what a
 * person would set by hand.
 */
export function matchLook(own: TakeColors, other: TakeColors): LookMatch {
  const contrast = hundredths(clamp(other.light.spread / Math.max(1, own.light.spread), 0.5, 2));
  const shifted = (own.light.mean - MIDDLE) * contrast + MIDDLE;
  const brightness = hundredths(clamp((other.light.mean - shifted) / RANGE, -0.5, 0.5));
  const widened = Math.max(1, own.color.spread * contrast);
  const saturation = hundredths(clamp(other.color.spread / widened, 0.3, 2));
  // What warmth adds is by how bright it is; contrast and saturation then widen it.
  const gain = contrast * saturation;
  const share = Math.max(0.1, (own.light.mean - BLACK) / RANGE) * gain;
  const [du, dv] = [other.color.u - own.color.u * gain, other.color.v - own.color.v * gain];
  const along = (du * WARMEST.u + dv * WARMEST.v) / (WARMEST.u ** 2 + WARMEST.v ** 2);
  return {
    ...{ brightness, contrast, saturation },
    temperature: hundredths(clamp(along / share, -1, 1)),
  };
}
