import { distanceTo } from '../scale/rect';
import type { Change } from './changes';

/** Where the pointer was in a picture, and what it looked like. */
export interface Spot {
  readonly ms: number;
  readonly x: number;
  readonly y: number;
  readonly form: string;
}

/** A press that is inferred from what it brought about. */
export interface InferredPress extends Omit<Spot, 'form'> {
  readonly confidence: number;
  /** When what was pressed was let go, in ms, if that is known. */
  readonly until?: number;
}

/** A pointer that moves less than this from picture to picture stands still. */
const STILL = 2.5;
/** Its places are not known better than this where it changes its look. */
const STILL_CHANGED = 10;
/** It stands still for so many ms after a press too; what changes as it leaves is not one. */
const STANDS = 100;
/** It has stood for so many ms before the picture changes. */
const STOOD = 30;
/** What a press brings about comes within so many ms of each other. */
const TOGETHER = 250;
/** A change is near the pointer within so many pixels. */
const NEAR = 90;
/** A press is that much before the picture that shows what it brought about, in ms. */
const BEFORE = 40;
/** After so long at one place a change there is hardly the first press's. */
const LONG = 4000;
/** What is so large was not there before for a blink. */
const LARGE = 40;
/** A page that is scrolled moves by parts of a pixel too, which is not told as scrolling. */
const SCROLLING = 150;
/** What changes so near to the pointer, in pixels, is what it is on. */
const AT = 8;
/** What a pointer that stood for so many ms did not bring about itself may come up, too. */
const WAITED = 1500;
/**
 * How likely it is a press, about as often as it was one in recordings of desktops: what is large,
 * what is small and at the pointer, and anything at one that has stood for long (right in none of
 * three). What is small and only near it was too rare there to tell.
 */
const SURE = { large: 0.95, small: 0.85, near: 0.6, late: 0.5 };
/** A page that comes up changes this share of the picture and more. */
const PAGE = 0.1;

/** Whether the pointer is at one place in both. */
const isStill = (a: Spot, b: Spot): boolean =>
  Math.hypot(a.x - b.x, a.y - b.y) <= (a.form === b.form ? STILL : STILL_CHANGED);

/** Whether the pointer stays where it is from one picture on, unless it is hidden. */
function stays(spots: readonly (Spot | null)[], from: number): boolean {
  const here = spots[from]!;
  for (let i = from + 1; i < spots.length; i++) {
    const next = spots[i];
    if (!next || next.ms - here.ms > STANDS) return true;
    if (!isStill(here, next)) return false;
  }
  return true;
}

/**
 * In which pictures a page is scrolled, though it is not told there: much of it changes, shortly
 * before or after it is told. What is small before it may be the press that brings it about.
 */
function whileScrolled(changes: readonly Change[]): boolean[] {
  const goes = changes.map(({ scrolled }) => scrolled !== 0);
  const mark = (order: Iterable<number>) => {
    let scrolled = Infinity;
    for (const i of order) {
      const { ms, share } = changes[i]!;
      if (changes[i]!.scrolled) scrolled = ms;
      else if (Math.abs(ms - scrolled) <= SCROLLING && share >= PAGE) goes[i] = true;
    }
  };
  mark(changes.keys());
  mark([...changes.keys()].reverse());
  return goes;
}

/**
 * Presses, from what they brought about: the pointer came to a place and stood, and then something
 * changed at it or much of the picture at once. At each stop the first such change is one; later
 * ones only where they are large, since typing changes a place too.
 *
 * @param spots where the pointer was, picture by picture; null where it was hidden
 * @param changes what changed in the same pictures, the pointer's own motion taken out
 */
export function inferPresses(
  spots: readonly (Spot | null)[],
  changes: readonly Change[],
): InferredPress[] {
  const found: InferredPress[] = [];
  let since: number | null = null;
  let last = -Infinity;
  let pressed = 0;
  const scrolling = whileScrolled(changes);
  for (const [i, change] of changes.entries()) {
    const spot = spots[i] ?? null;
    const before = i ? (spots[i - 1] ?? null) : null;
    if (!spot || !before || !isStill(spot, before)) {
      since = spot ? change.ms : null;
      pressed = 0;
    }
    if (!spot || since === null) continue;
    if (scrolling[i]) {
      last = change.ms;
      continue;
    }
    const distances = change.calm.map((box) => distanceTo(box, spot));
    const tiles = change.calm.reduce((sum, box) => sum + box.tiles, 0);
    const near = Math.min(...distances);
    const [isNear, large] = [near <= NEAR, tiles >= LARGE];
    // What goes on elsewhere, as a film or a caret does, tells nothing of what is pressed here.
    if (!isNear && !large) continue;
    const fresh = change.ms - last > TOGETHER;
    last = change.ms;
    if (!fresh) continue;
    const stood = change.ms - since;
    if (stood < STOOD) continue;
    if (pressed && !(large && isNear)) continue;
    if (!pressed && stood > LONG && !large) continue;
    // It may leave while a page comes up; what lights up or goes dark as it leaves is smaller.
    if (change.share < PAGE && !stays(spots, i)) continue;
    pressed++;
    const small = near < AT ? SURE.small : SURE.near;
    const confidence = stood > WAITED ? SURE.late : large ? SURE.large : small;
    found.push({ ms: Math.max(since, change.ms - BEFORE), x: spot.x, y: spot.y, confidence });
  }
  return found;
}
