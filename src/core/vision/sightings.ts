import type { Blob } from './blobs';
import { apartAt, cutAt, type Cut } from './cut';
import { cutOut, type Luma } from './luma';

/**
 * A small thing that left one place of the picture and came to another between two pictures: a
 * pointer, or what looks like one. What is seen at a place, with some of what lies around it.
 */
export interface Sighting extends Cut {
  /** The corner of the cut-out, in the picture's pixels. */
  readonly x: number;
  readonly y: number;
  /** 1 where the thing itself is seen, as far as it differs from what was there without it. */
  readonly mask: Uint8Array;
}

/** Pointers are so large, in pixels; what is narrower is the caret of a text. */
const LEAST_SIDE = 9;
const LEAST_WIDTH = 5;
const MOST_SIDE = 84;
const LEAST_COUNT = 24;
/** Of what lies around the thing, so many pixels are cut out too. */
const AROUND = 6;
/** Two boxes of one thing may differ by so many pixels and so much of their size. */
const SLACK = 4;
const SLACK_SHARE = 0.3;
/** How far two looks of one thing lie apart at most, on the mean, in code values. */
const ALIKE = 12;
/** The share of both outlines that has to be common to them. */
const COMMON = 0.55;
/** More things than this at once are no pointer's doing. */
const MOST_BLOBS = 12;

/** Whether something that changed has a size that pointers have. */
export const fitsPointer = ({ width, height, count }: Blob): boolean =>
  Math.max(width, height) <= MOST_SIDE &&
  Math.max(width, height) >= LEAST_SIDE &&
  Math.min(width, height) >= LEAST_WIDTH &&
  count >= LEAST_COUNT;

const near = (a: number, b: number): boolean =>
  Math.abs(a - b) <= SLACK + SLACK_SHARE * Math.max(a, b);

interface Fit {
  readonly dx: number;
  readonly dy: number;
  /** The share of both outlines that is common. */
  readonly common: number;
  /** Mean difference if it went from `a` to `b`, and if it went from `b` to `a`. */
  readonly forth: number;
  readonly back: number;
}

/** A changed place, as it was and as it is. */
interface Place {
  readonly blob: Blob;
  readonly before: Cut;
  readonly now: Cut;
}

/** How two outlines lie on each other, shifted against each other by some pixels. */
function fitAt(a: Place, b: Place, dx: number, dy: number): Fit {
  let [both, forth, back] = [0, 0, 0];
  const { width, height, mask, count } = a.blob;
  const other = b.blob;
  const left = Math.max(0, -dx);
  for (let y = Math.max(0, -dy); y < height && y + dy < other.height; y++)
    for (let x = left; x < width && x + dx < other.width; x++) {
      const i = y * width + x;
      const k = (y + dy) * other.width + x + dx;
      if (!mask[i] || !other.mask[k]) continue;
      both++;
      forth += apartAt(a.before, i, b.now, k);
      back += apartAt(a.now, i, b.before, k);
    }
  const common = both / Math.max(1, count + other.count - both);
  return { dx, dy, common, forth: forth / Math.max(1, both), back: back / Math.max(1, both) };
}

/** The shift at which two outlines have most in common and look alike; null if none does. */
function bestFit(a: Place, b: Place): Fit | null {
  let best: Fit | null = null;
  const reachX = Math.min(6, Math.abs(a.blob.width - b.blob.width) + 2);
  const reachY = Math.min(6, Math.abs(a.blob.height - b.blob.height) + 2);
  for (let dy = -reachY; dy <= reachY; dy++)
    for (let dx = -reachX; dx <= reachX; dx++) {
      const fit = fitAt(a, b, dx, dy);
      if (fit.common < COMMON || Math.min(fit.forth, fit.back) > ALIKE) continue;
      if (!best || quality(fit) > quality(best)) best = fit;
    }
  return best;
}

const quality = ({ common, forth, back }: Fit): number => common - Math.min(forth, back) / 40;

/** How much there is to see in a thing's box and close around it, as the variance of its samples. */
function detailOf({ x, y, width, height }: Blob, picture: Luma): number {
  const samples = cutOut(picture, x - 2, y - 2, width + 4, height + 4);
  let [sum, squares] = [0, 0];
  for (const sample of samples) {
    sum += sample;
    squares += sample * sample;
  }
  return squares / samples.length - (sum / samples.length) ** 2;
}

/** A thing's cut-out from one picture. */
export function sight(blob: Blob, picture: Luma): Sighting {
  const width = blob.width + 2 * AROUND;
  const height = blob.height + 2 * AROUND;
  const [x, y] = [blob.x - AROUND, blob.y - AROUND];
  const mask = new Uint8Array(width * height);
  for (let v = 0; v < blob.height; v++)
    mask.set(
      blob.mask.subarray(v * blob.width, (v + 1) * blob.width),
      (v + AROUND) * width + AROUND,
    );
  return { x, y, mask, ...cutAt(picture, x, y, width, height) };
}

/**
 * What moved between two pictures as a rigid thing of a pointer's size: pairs of changed places
 * that look alike, one before and the other after. Where that holds both ways, as on a plain ground,
 * the thing is where there is more to see.
 *
 * @returns for each thing, how it was seen before and how now
 */
export function sightingsOf(now: Luma, before: Luma, blobs: readonly Blob[]): Sighting[] {
  const fitting = blobs.filter(fitsPointer);
  if (fitting.length > MOST_BLOBS) return [];
  const places = fitting.map((blob): Place => {
    const { x, y, width, height } = blob;
    const [was, is] = [before, now].map((picture) => cutAt(picture, x, y, width, height));
    return { blob, before: was!, now: is! };
  });
  const found: Sighting[] = [];
  for (const [i, one] of places.entries())
    for (const other of places.slice(i + 1)) {
      const [a, b] = [one.blob, other.blob];
      if (!near(a.width, b.width) || !near(a.height, b.height)) continue;
      const fit = bestFit(one, other);
      if (!fit) continue;
      const couldGo = fit.forth <= ALIKE;
      const couldCome = fit.back <= ALIKE;
      const went =
        couldGo && couldCome
          ? detailOf(a, before) + detailOf(b, now) > detailOf(a, now) + detailOf(b, before)
          : couldGo;
      found.push(...(went ? [sight(a, before), sight(b, now)] : [sight(b, before), sight(a, now)]));
    }
  return found;
}
