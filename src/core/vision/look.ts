import type { Kin } from './gathering';
import { hotspotOf } from './hotspot';
import { boxAround, filled, grown } from './mask';
import type { PointerForm } from './pointer-shapes';
import { spread } from './spread';

/** A sample of a look: where it is from the look's corner, and how light it may be. */
export interface LookPoint {
  readonly x: number;
  readonly y: number;
  readonly low: number;
  readonly high: number;
}

/** What a pointer looks like, as it was learned from a recording. */
export interface PointerLook {
  readonly width: number;
  readonly height: number;
  /** What it is compared by: as many dark samples as light ones, scarce ones several times. */
  readonly points: readonly LookPoint[];
  /** What it points with, from its corner. */
  readonly hotspot: { readonly x: number; readonly y: number };
  readonly form: PointerForm;
  /** At how many places it was seen. */
  readonly seen: number;
}

/** Samples of each kind that are compared at most, and what a scarce kind is brought up to. */
const MOST_POINTS = 96;
const LEAST_POINTS = 14;
/** Of the sightings, at least this share shows a sample that belongs to the look. */
const OFTEN = 0.5;
/** Samples of a look vary by no more than this over most of its sightings. */
const STEADY = 40;
/** The share of sightings that is left out on either side, as spoiled by what lies around. */
const OUTER = 0.2;
/** A look has at least this difference between its dark and its light parts. */
const CONTRAST = 40;
/** The rim of a pointer that is not seen on a ground of its tone, in pixels. */
const RIM = 1.5;
/** Two looks are one if one fits into the other, shifted by some pixels, with this difference. */
const SHIFT = 8;
const SAME = 6;
/** What is dark and what is light, as a share of the way between both. */
const EXTREME = 0.3;

/** Of its box a pointer fills less than this; a button that lights up under it fills all. */
const BOX = 0.85;

/** Whether an outline is a box, or nearly. */
function isBox(outline: Uint8Array, width: number): boolean {
  const box = boxAround(outline, width);
  if (!box) return false;
  const { left, top, right, bottom, count } = box;
  return count > BOX * (right - left) * (bottom - top);
}

/** Each sample of a kin, on the median, and which of them belong to it. */
interface Portrait {
  readonly width: number;
  readonly height: number;
  readonly luma: Uint8Array;
  /** Between which most of its samples lie, by codec and fractions of a pixel. */
  readonly low: Uint8Array;
  readonly high: Uint8Array;
  readonly often: Uint8Array;
  readonly steady: Uint8Array;
}

type Planes = [Uint8Array, Uint8Array, Uint8Array];

function portraitOf({ first, members }: Kin): Portrait {
  const { width, height } = first;
  const [luma, low, high] = [0, 1, 2].map(() => new Uint8Array(width * height)) as Planes;
  const often = new Uint8Array(width * height);
  const steady = new Uint8Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const values: number[] = [];
      let changed = 0;
      for (const { sighting, dx, dy } of members) {
        const [u, v] = [x + dx, y + dy];
        if (u < 0 || v < 0 || u >= sighting.width || v >= sighting.height) continue;
        values.push(sighting.luma[v * sighting.width + u]!);
        changed += sighting.mask[v * sighting.width + u]!;
      }
      const at = y * width + x;
      values.sort((a, b) => a - b);
      const middle = values[values.length >> 1] ?? 0;
      luma[at] = middle;
      low[at] = Math.min(values[Math.floor(values.length * OUTER)] ?? middle, middle - 2);
      high[at] = Math.max(values[Math.ceil(values.length * (1 - OUTER)) - 1] ?? middle, middle + 2);
      often[at] = changed >= OFTEN * members.length ? 1 : 0;
      steady[at] = high[at] - low[at] <= STEADY ? 1 : 0;
    }
  return { width, height, luma, low, high, often, steady };
}

/** Dark and light samples of a mask, balanced; null where it shows no two tones. */
function pointsOf(portrait: Portrait, mask: Uint8Array): LookPoint[] | null {
  const { width, luma, low: darkest, high: lightest } = portrait;
  const all: (LookPoint & { value: number })[] = [];
  mask.forEach((on, at) => {
    const [x, y] = [at % width, Math.floor(at / width)];
    if (on) all.push({ x, y, value: luma[at]!, low: darkest[at]!, high: lightest[at]! });
  });
  if (all.length < 2 * LEAST_POINTS) return null;
  const sorted = all.map(({ value }) => value).sort((a, b) => a - b);
  const low = sorted[Math.floor(sorted.length * 0.06)]!;
  const high = sorted[Math.floor(sorted.length * 0.94)]!;
  if (high - low < CONTRAST) return null;
  const span = (high - low) * EXTREME;
  // What is neither is shadow or the seam of both, which depends on what lies below.
  const dark = all.filter(({ value }) => value <= low + span);
  const light = all.filter(({ value }) => value >= high - span);
  if (Math.min(dark.length, light.length) < LEAST_POINTS) return null;
  const each = Math.min(MOST_POINTS, Math.max(dark.length, light.length));
  return [...spread(dark, each), ...spread(light, each)];
}

/** A sample of the ground may be of any tone that is nearer to its own than to the pointer's. */
function loose({ x, y, low, high }: LookPoint, all: readonly LookPoint[]): LookPoint {
  const tones = all.map((point) => (point.low + point.high) / 2);
  const middle = Math.round((Math.min(...tones) + Math.max(...tones)) / 2);
  return (low + high) / 2 > middle ? { x, y, low: middle, high } : { x, y, low, high: middle };
}

/**
 * Learns a look from sightings of it: samples on the median, those that are always seen and hardly
 * vary. Null where nothing can be told by it.
 */
export function lookOf(kin: Kin): PointerLook | null {
  const portrait = portraitOf(kin);
  const { width, height, often, steady } = portrait;
  const outline = filled(often, width, height);
  if (isBox(outline, width)) return null;
  const own = outline.map((on, at) => on & steady[at]!);
  const points = pointsOf(portrait, own);
  const { hotspot, form } = hotspotOf(outline, width, height);
  const rest = { width, height, form, seen: kin.members.length };
  if (points) return { ...rest, points, hotspot };
  // Of one tone only, as a dark line: what always lies around it belongs to it too, and a rim in
  // the ground's tone is part of the pointer that is not seen.
  const around = grown(outline, width, height, 2).map((on, at) => on & steady[at]!);
  const ringed = pointsOf(portrait, around);
  if (!ringed) return null;
  const rim = form === 'arrow' ? RIM : 0;
  return {
    ...rest,
    points: ringed.map((point) =>
      outline[point.y * width + point.x] ? point : loose(point, ringed),
    ),
    hotspot: { x: hotspot.x - rim, y: hotspot.y - rim },
  };
}

/** Whether a look fits well into what sightings show, shifted by a few pixels at most. */
export function fitsKin({ points }: PointerLook, kin: Kin): boolean {
  const { width, height, luma } = portraitOf(kin);
  for (let dy = -SHIFT; dy <= SHIFT; dy++)
    for (let dx = -SHIFT; dx <= SHIFT; dx++) {
      let sum = 0;
      for (const { x, y, low, high } of points) {
        const [u, v] = [x + dx, y + dy];
        const inside = u >= 0 && v >= 0 && u < width && v < height;
        const sample = luma[v * width + u]!;
        sum += inside ? Math.min(64, Math.max(0, low - sample, sample - high)) : 64;
      }
      if (sum <= points.length * SAME) return true;
    }
  return false;
}
