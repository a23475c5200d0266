/*
 * What the kernels mean, one sample at a time and in double precision. Tests hold the kernels
 * against it; it is not for use.
 */
const clamp = (n: number, least = 0, most = 255) => Math.min(most, Math.max(least, n));
const byte = (n: number) => clamp(Math.round(n));

/**
 * Distance of a colour difference from the wall along the wall's direction, as `keyAlpha` takes it.
 */
export function keyDistance(
  u: number,
  v: number,
  wallU: number,
  wallV: number,
  across: number,
): number {
  const [ku, kv] = [wallU - 128, wallV - 128];
  const length = Math.sqrt(Math.max(1, ku * ku + kv * kv));
  const [du, dv] = [u - 128, v - 128];
  const along = (du * ku + dv * kv) / length;
  const aside = Math.abs(dv * ku - du * kv) / length;
  return length - along + Math.max(0, aside - length * across);
}

export const keyOpacity = (distance: number, inner: number, outer: number): number =>
  byte(((distance - inner) * 255) / Math.max(outer - inner, 0.5));

export function halved(plane: Uint8Array, width: number, height: number): Uint8Array {
  const [w, h] = [(width + 1) >> 1, (height + 1) >> 1];
  return Uint8Array.from({ length: w * h }, (_, i) => {
    const [x, y] = [(i % w) * 2, Math.floor(i / w) * 2];
    let sum = 0;
    for (const row of [y, Math.min(height - 1, y + 1)])
      sum +=
        plane[row * width + Math.max(0, x - 1)]! +
        2 * plane[row * width + x]! +
        plane[row * width + Math.min(width - 1, x + 1)]!;
    return Math.floor((sum + 4) / 8);
  });
}

/** A plane at chroma's size brought up to luma's, sited left. */
export function broughtUp(
  plane: ArrayLike<number>,
  width: number,
  height: number,
  x: number,
  y: number,
): number {
  const [w, h] = [(width + 1) >> 1, (height + 1) >> 1];
  const near = y >> 1;
  const far = clamp(near + (y & 1 ? 1 : -1), 0, h - 1);
  const left = x >> 1;
  const right = x & 1 ? Math.min(w - 1, left + 1) : left;
  const row = (r: number) => (plane[r * w + left]! + plane[r * w + right]!) / 2;
  return row(near) * 0.75 + row(far) * 0.25;
}

/** Guided filter of opacity at chroma's size, and opacity at luma's from it. */
export function refined(
  luma: Uint8Array,
  alpha: Uint8Array,
  width: number,
  height: number,
  calm: number,
  edge: number,
): Uint8Array {
  const [w, h] = [(width + 1) >> 1, (height + 1) >> 1];
  const guide = halved(luma, width, height);
  const slopes = new Float64Array(w * h);
  const offsets = new Float64Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      let [g, a, ga, gg] = [0, 0, 0, 0];
      for (let dy = -1; dy < 2; dy++)
        for (let dx = -1; dx < 2; dx++) {
          const i = clamp(y + dy, 0, h - 1) * w + clamp(x + dx, 0, w - 1);
          g += guide[i]! / 9;
          a += alpha[i]! / 9;
          ga += (guide[i]! * alpha[i]!) / 9;
          gg += (guide[i]! * guide[i]!) / 9;
        }
      slopes[y * w + x] = (ga - g * a) / (Math.max(0, gg - g * g) + calm);
      offsets[y * w + x] = a - slopes[y * w + x]! * g;
    }
  return Uint8Array.from({ length: width * height }, (_, i) => {
    const [x, y] = [i % width, Math.floor(i / width)];
    const at =
      broughtUp(slopes, width, height, x, y) * luma[i]! + broughtUp(offsets, width, height, x, y);
    return byte((at - edge * 255) / (1 - 2 * edge));
  });
}

export const unmixed = (
  sample: number,
  wall: number,
  alpha: number,
  pivot: number,
  most: number,
): number => {
  const own = sample - (pivot + ((wall - pivot) * (255 - alpha)) / 255);
  const bound = (alpha * most) / 255;
  return pivot + clamp(own, pivot === 0 ? 0 : -bound, bound);
};

/** The least or the largest sample of a square. */
export function spread(
  plane: Uint8Array,
  width: number,
  height: number,
  radius: number,
  grow: boolean,
): Uint8Array {
  return Uint8Array.from({ length: width * height }, (_, i) => {
    const [x, y] = [i % width, Math.floor(i / width)];
    let best = grow ? 0 : 255;
    for (let dy = -radius; dy <= radius; dy++)
      for (let dx = -radius; dx <= radius; dx++) {
        const sample = plane[clamp(y + dy, 0, height - 1) * width + clamp(x + dx, 0, width - 1)]!;
        best = grow ? Math.max(best, sample) : Math.min(best, sample);
      }
    return best;
  });
}

/** One pass of a box blur in both directions, rounded between as the kernel does. */
export function boxBlurred(
  plane: Uint8Array,
  width: number,
  height: number,
  radius: number,
): Uint8Array {
  const pass = (from: Uint8Array, at: (x: number, y: number, d: number) => number) =>
    Uint8Array.from({ length: width * height }, (_, i) => {
      let sum = 0;
      for (let d = -radius; d <= radius; d++) sum += from[at(i % width, Math.floor(i / width), d)]!;
      return byte(sum / (2 * radius + 1));
    });
  const across = pass(plane, (x, y, d) => y * width + clamp(x + d, 0, width - 1));
  return pass(across, (x, y, d) => clamp(y + d, 0, height - 1) * width + x);
}

/**
 * A sample of a plane that is resampled along any axes: weights by phase, as the table has them.
 */
export function warped(
  plane: Uint8Array,
  width: number,
  height: number,
  sx: number,
  sy: number,
  weights: Int16Array,
  phases: number,
): number {
  const [fx, fy] = [Math.floor(sx - 0.5), Math.floor(sy - 0.5)];
  const px = Math.floor((sx - 0.5 - fx) * phases + 0.5);
  const py = Math.floor((sy - 0.5 - fy) * phases + 0.5);
  const from = (py * (phases + 1) + px) * 16;
  let sum = 0;
  for (let k = 0; k < 16; k++) {
    const x = clamp(fx - 1 + (k % 4), 0, width - 1);
    const y = clamp(fy - 1 + Math.floor(k / 4), 0, height - 1);
    sum += plane[y * width + x]! * weights[from + k]!;
  }
  return byte(sum / 16384);
}

/** A sample with brightness and contrast changed, as `adjustPlane` does it. */
export const adjusted = (
  sample: number,
  opacity: number,
  factor: number,
  offset: number,
  pivot: number,
): number => byte(pivot + (sample - pivot) * factor + (offset * opacity) / 255);

const light = (luma: number) => clamp((luma - 16) / 219, 0, 1);

/** Light that a sample which is multiplied by its opacity (0 to 1) adds. */
const addedLight = (luma: number, opacity: number) =>
  clamp((luma - 16 * opacity) / 219, 0, opacity);

/** What of the ground a picture that is multiplied or screened with it leaves. */
const left = (luma: number, opacity: number, screen: boolean) =>
  screen ? 1 - addedLight(luma, opacity) : 1 - opacity + addedLight(luma, opacity);

/** The luma of two pictures multiplied, or of their complements. */
export function multipliedLuma(
  ground: number,
  laid: number,
  opacity: number,
  screen: boolean,
): number {
  const share = left(laid, opacity / 255, screen);
  return byte(16 + 219 * (screen ? 1 - (1 - light(ground)) * share : light(ground) * share));
}

/** A colour difference of two pictures multiplied, or of their complements; by the luma of both. */
export function multipliedChroma(
  ground: number,
  laid: number,
  opacity: number,
  screen: boolean,
  groundLuma: number,
  laidLuma: number,
): number {
  const lit = screen ? 1 - light(groundLuma) : light(groundLuma);
  return byte(128 + (ground - 128) * left(laidLuma, opacity / 255, screen) + (laid - 128) * lit);
}

/** A sample around a pivot divided by a weight of which 255 stands for 1. */
export const divided = (sample: number, weight: number, pivot: number): number =>
  weight === 0 ? pivot : byte(pivot + ((sample - pivot) * 255) / weight);

/** An opacity that noise is kept from, by what it was and how luma around it has changed. */
export function steadied(
  i: number,
  alpha: Uint8Array,
  before: Uint8Array,
  luma: Uint8Array,
  lumaBefore: Uint8Array,
  fresh: number,
): number {
  const around = (plane: Uint8Array) => plane[i - 1]! + 2 * plane[i]! + plane[i + 1]!;
  const change = Math.floor(Math.abs(around(luma) - around(lumaBefore)) / 4);
  const step = Math.abs(alpha[i]! - before[i]!);
  const moved = Math.min(1, Math.max(Math.min(change, 64) * 23, Math.min(step, 64) * 8) / 255);
  const share = fresh / 255 + (1 - fresh / 255) * moved * moved;
  return byte(before[i]! + (alpha[i]! - before[i]!) * share);
}

/** A colour difference under light of another warmth, by the luma of the four samples there. */
export function tinted(
  sample: number,
  i: number,
  luma: Uint8Array,
  width: number,
  height: number,
  amount: number,
): number {
  const across = (width + 1) >> 1;
  const [x, y] = [i % across, Math.floor(i / across)];
  const at = (dx: number, dy: number) =>
    luma[clamp(2 * y + dy, 0, height - 1) * width + clamp(2 * x + dx, 0, width - 1)]!;
  const mean = (at(0, 0) + at(1, 0) + at(0, 1) + at(1, 1)) / 4;
  return byte(sample + amount * Math.max(0, (mean - 16) / 219));
}

/** Shares along a row as opacities. */
export const solvedShares = (share: (x: number) => number, width: number): number[] =>
  Array.from({ length: width }, (_, x) => 255 * share(x));
