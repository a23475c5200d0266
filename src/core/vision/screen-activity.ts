import { areaOf, meet, padded, unite, type Rect, type Size } from '../scale/rect';
import type { Change, ChangedBox } from './changes';
import { TILE } from './luma';
import { boxOf, isCaret, lettersOf, LINE, spanOf, type Part } from './typing';

/** Something that happened in the picture itself. */
export interface ScreenActivity {
  readonly kind: 'typing' | 'scroll' | 'opening' | 'page' | 'video' | 'change';
  /** Milliseconds of the recording. */
  readonly start: number;
  readonly end: number;
  /** Pixels of the recording. */
  readonly box: Rect;
  /** How far a scroll went down in all, in pixels. */
  readonly scrolled: number;
}

/** Changes of one place no further from each other than this belong together, in ms. */
const GAP = 700;
/** And in pixels. */
const BESIDE = 24;
/** Things of one kind are one if the next begins at most so many ms after the one before ends. */
const TOGETHER = 300;
/** From this share of the picture on, a page is a new one. */
const PAGE = 0.4;
/** A film changes so often a second, for so many ms. */
const FILM_RATE = 7;
const FILM_TIME = 1500;
/** What opens is at least so large, and there within so many ms. */
const OPENING = { width: 64, height: 48, time: 450 };
/** The ring of a field that lights up: so many tiles as along its box's edges, and of all in it. */
const RING = { edges: 1.5, share: 0.65 };

/** A place that changes, over a time. */
interface Busy {
  /** In order of time, one for each picture in which something changed. */
  readonly parts: Part[];
  /** What changed of it last; of several things in one picture, one. */
  last: Rect;
  scrolled: number;
  share: number;
}

function isRing({ width, height, tiles }: ChangedBox): boolean {
  const [across, down] = [width / TILE, height / TILE];
  const edges = 2 * (across + down) - 4;
  return tiles <= RING.edges * edges && tiles <= RING.share * across * down;
}

function kindOf(
  parts: readonly Part[],
  { scrolled, share }: Busy,
  height: number,
): ScreenActivity['kind'] | null {
  const box = boxOf(parts);
  const { start, end } = spanOf(parts);
  if (scrolled) return 'scroll';
  if (share >= PAGE) return 'page';
  const isOften = parts.length >= (FILM_RATE * (end - start)) / 1000;
  const largest = parts.reduce((a, b) => (areaOf(b.rect) > areaOf(a.rect) ? b : a)).rect;
  if (isOften && end - start >= FILM_TIME && largest.height > LINE * height) return 'video';
  if (isCaret(box, height)) return null;
  const opened = box.width >= OPENING.width && box.height >= OPENING.height;
  const isFilled = parts.some((part) => part.isFilled);
  if (opened && isFilled && end - start <= OPENING.time) return 'opening';
  return 'change';
}

/** What a place that changed was: typing, what went on beside it, or one thing. */
function tellPlace(busy: Busy, height: number): ScreenActivity[] {
  const { parts, scrolled } = busy;
  const isText = !scrolled && busy.share < PAGE;
  const letters = (isText && lettersOf(parts, height)) || [];
  const isLetter = new Set(letters);
  const others = parts.filter((part) => !isLetter.has(part));
  const told: ScreenActivity[] = [];
  const tell = (kind: ScreenActivity['kind'] | null, of: readonly Part[]) => {
    if (kind) told.push({ kind, ...spanOf(of), box: boxOf(of), scrolled });
  };
  if (letters.length) tell('typing', letters);
  if (others.length) tell(kindOf(others, busy, height), others);
  return told;
}

/**
 * What happened in the picture, in order of time: changes at one place that follow each other, and
 * what they were by their size, rate and way.
 *
 * @param changes what changed from picture to picture, the pointer's own motion taken out
 * @param size of the pictures
 */
export function screenActivities(changes: readonly Change[], size: Size): ScreenActivity[] {
  const found: ScreenActivity[] = [];
  let open: Busy[] = [];
  const close = (busy: Busy) => found.push(...tellPlace(busy, size.height));
  const latestOf = ({ parts }: Busy) => parts[parts.length - 1]!.ms;
  for (const { ms, boxes, share, scrolled } of changes) {
    for (const busy of open) if (ms - latestOf(busy) > GAP) close(busy);
    open = open.filter((busy) => ms - latestOf(busy) <= GAP);
    for (const box of boxes) {
      const rect = { x: box.x, y: box.y, width: box.width, height: box.height };
      const isFilled = areaOf(rect) >= OPENING.width * OPENING.height && !isRing(box);
      const there = open.find(
        (busy) =>
          meet(padded(busy.last, BESIDE), rect) && (busy.scrolled !== 0) === (scrolled !== 0),
      );
      if (!there) {
        open.push({ parts: [{ ms, rect, isFilled }], last: rect, scrolled, share });
        continue;
      }
      const { parts } = there;
      const latest = parts[parts.length - 1]!;
      if (latest.ms !== ms) parts.push({ ms, rect, isFilled });
      else
        parts[parts.length - 1] = {
          ...{ ms, rect: unite(latest.rect, rect) },
          isFilled: latest.isFilled || isFilled,
        };
      there.last = rect;
      there.scrolled += scrolled;
      there.share = Math.max(there.share, share);
    }
  }
  open.forEach(close);
  return together(found, size);
}

/**
 * Things of one kind at one time are one thing: a page that is laid out anew opens in many places.
 * What takes up much of the screen is a new page.
 */
function together(activities: readonly ScreenActivity[], size: Size): ScreenActivity[] {
  const all: ScreenActivity[] = [];
  for (const one of [...activities].sort((a, b) => a.start - b.start || a.end - b.end)) {
    const { kind, start } = one;
    const at = all.findLastIndex((a) => a.kind === kind && start <= a.end + TOGETHER);
    const there = all[at];
    if (!there) {
      all.push(one);
      continue;
    }
    const scrolled = Math.abs(one.scrolled) > Math.abs(there.scrolled) ? one : there;
    all[at] = {
      ...{ kind, start: there.start, end: Math.max(there.end, one.end) },
      ...{ box: unite(there.box, one.box), scrolled: scrolled.scrolled },
    };
  }
  const whole = size.width * size.height;
  return all.map((one) =>
    (one.kind === 'opening' || one.kind === 'change') && areaOf(one.box) > PAGE * whole
      ? { ...one, kind: 'page' }
      : one,
  );
}
