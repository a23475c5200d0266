import { areaOf, meet, padded, unite, type Rect, type Size } from '../scale/rect';
import type { Change } from './changes';

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
/** Things of one kind are one if the next begins at most so many ms after the end of the one before. */
const TOGETHER = 300;
/** From this share of the picture on, a page is a new one. */
const PAGE = 0.4;
/** A line of text is no higher than this share of the picture, with what the codec adds. */
const LINE = 0.075;
/** Typing is so many changes a second at least, and so many in all. */
const TYPING_RATE = 1.6;
const TYPING_LEAST = 3;
/** A film changes so often a second, for so many ms. */
const FILM_RATE = 7;
const FILM_TIME = 1500;
/** What opens is at least so large, and there within so many ms. */
const OPENING = { width: 64, height: 48, time: 450 };
/** The caret of a text field blinks within these shares of the picture's height. */
const CARET = { width: 0.03, height: 0.06 };

/** A place that changes, over a time. */
interface Busy {
  start: number;
  end: number;
  box: Rect;
  /** The largest of its changes, and the first. */
  largest: Rect;
  first: Rect;
  last: Rect;
  times: number;
  scrolled: number;
  share: number;
}

function kindOf(busy: Busy, height: number): ScreenActivity['kind'] | null {
  const { box, largest, first, last, times, scrolled, start, end, share } = busy;
  const seconds = Math.max(0.001, (end - start) / 1000);
  if (scrolled) return 'scroll';
  if (share >= PAGE) return 'page';
  if (times >= FILM_RATE * seconds && end - start >= FILM_TIME && largest.height > LINE * height)
    return 'video';
  if (box.width <= CARET.width * height && box.height <= CARET.height * height) return null;
  const advances = last.x + last.width > first.x + first.width;
  if (
    largest.height <= LINE * height &&
    times >= TYPING_LEAST &&
    times >= TYPING_RATE * seconds &&
    advances
  )
    return 'typing';
  const opened = box.width >= OPENING.width && box.height >= OPENING.height;
  if (opened && end - start <= OPENING.time) return 'opening';
  return 'change';
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
  const close = (busy: Busy) => {
    const kind = kindOf(busy, size.height);
    const { start, end, box, scrolled } = busy;
    if (kind) found.push({ kind, start, end, box, scrolled });
  };
  for (const { ms, boxes, share, scrolled } of changes) {
    for (const busy of open) if (ms - busy.end > GAP) close(busy);
    open = open.filter((busy) => ms - busy.end <= GAP);
    for (const box of boxes) {
      const rect = { x: box.x, y: box.y, width: box.width, height: box.height };
      const there = open.find(
        (busy) =>
          meet(padded(busy.last, BESIDE), rect) && (busy.scrolled !== 0) === (scrolled !== 0),
      );
      if (!there) {
        const fresh = { start: ms, end: ms, box: rect, largest: rect, first: rect, last: rect };
        open.push({ ...fresh, times: 1, scrolled, share });
        continue;
      }
      there.times += ms > there.end ? 1 : 0;
      there.end = ms;
      there.box = unite(there.box, rect);
      there.last = rect;
      there.scrolled += scrolled;
      there.share = Math.max(there.share, share);
      if (areaOf(rect) > areaOf(there.largest)) there.largest = rect;
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
