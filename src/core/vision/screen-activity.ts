import { areaOf, isWithin, meet, padded, unite, type Rect, type Size } from '../scale/rect';
import type { Change, ChangedBox } from './changes';
import { TILE } from './luma';

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
/** And a few letters, as are typed between two pictures, no wider, and so often their height. */
const LETTERS = { width: 0.12, ratio: 4 };
/** Typing is so many changes a second, where more are an animation, and so many in all at least. */
const TYPING_RATE = { least: 1.6, most: 14 };
const TYPING_LEAST = 3;
/** So many letters are typed before the next line, which is lower, at least. */
const LINE_LETTERS = 20;
/** What went on so many tiles without coming back was typed, however narrow its letters. */
const TYPING_TILES = 4;
/** What an encoder mends of a picture comes within so many ms. */
const MENDED = 100;
/** A film changes so often a second, for so many ms. */
const FILM_RATE = 7;
const FILM_TIME = 1500;
/** What opens is at least so large, and there within so many ms. */
const OPENING = { width: 64, height: 48, time: 450 };
/** The ring of a field that lights up: so many tiles as along its box's edges, and of all in it. */
const RING = { edges: 1.5, share: 0.65 };
/** The caret of a text field blinks within these shares of the picture's height. */
const CARET = { width: 0.03, height: 0.06 };

/** What changed of a place in one picture. */
interface Part {
  readonly ms: number;
  readonly rect: Rect;
  /** Whether something that is large enough to have opened changed, not only the ring around it. */
  readonly isFilled: boolean;
}

/** A place that changes, over a time. */
interface Busy {
  /** In order of time, one for each picture in which something changed. */
  readonly parts: Part[];
  /** What changed of it last; of several things in one picture, one. */
  last: Rect;
  scrolled: number;
  share: number;
}

/** Whether something is no larger than a caret that blinks. */
const isCaret = ({ width, height }: Rect, ofPicture: number): boolean =>
  width <= CARET.width * ofPicture && height <= CARET.height * ofPicture;

function isRing({ width, height, tiles }: ChangedBox): boolean {
  const [across, down] = [width / TILE, height / TILE];
  const edges = 2 * (across + down) - 4;
  return tiles <= RING.edges * edges && tiles <= RING.share * across * down;
}

const endOf = ({ x, width }: Rect): number => x + width;

const isOneLine = (a: Rect, b: Rect): boolean => a.y < b.y + b.height && b.y < a.y + a.height;

const boxOf = (parts: readonly Part[]): Rect => parts.map(({ rect }) => rect).reduce(unite);

const spanOf = (parts: readonly Part[]) => ({
  start: parts[0]!.ms,
  end: parts[parts.length - 1]!.ms,
});

/** How many of the steps from one of some parts to the next stay on a line, and go on along it. */
function stepsAlong(parts: readonly Part[]) {
  let [on, back, elsewhere] = [0, 0, 0];
  for (let i = 1; i < parts.length; i++) {
    const [a, b] = [parts[i - 1]!.rect, parts[i]!.rect];
    if (!isOneLine(a, b)) elsewhere++;
    else if (endOf(b) > endOf(a)) on++;
    else if (endOf(b) < endOf(a)) back++;
  }
  return { on, back, elsewhere };
}

/** Whether what changed stayed on a line and went on along it, to either side. */
function advances(parts: readonly Part[]): boolean {
  const { on, back, elsewhere } = stepsAlong(parts);
  const steps = parts.length - 1;
  const [most, least] = [Math.max(on, back), Math.min(on, back)];
  if (elsewhere > steps / 4 || most < 3 * least) return false;
  // Letters are often narrower than what can be told of where something changed.
  return most >= steps / 4 || most - least >= TYPING_TILES;
}

/** Parts without those that an encoder only mends a moment later. */
const strokesOf = (parts: readonly Part[]): Part[] =>
  parts.filter(({ ms, rect }, i) => {
    const before = parts[i - 1];
    return !before || ms - before.ms > MENDED || !isWithin(rect, before.rect);
  });

/** Parts without the caret that blinks before the first letter and after the last. */
function withoutBlinking(parts: readonly Part[]): readonly Part[] {
  const moves = parts.map(({ rect }, i) => i > 0 && endOf(rect) !== endOf(parts[i - 1]!.rect));
  return parts.slice(moves.indexOf(true) - 1, moves.lastIndexOf(true) + 1);
}

/**
 * Which of the changes of a place are letters that are typed; null if none are. A field that lights
 * up before, or a list that opens beneath, is beside that.
 */
function lettersOf(parts: readonly Part[], height: number): readonly Part[] | null {
  const small = parts.filter(
    ({ rect }) =>
      rect.height <= LINE * height &&
      rect.width <= Math.min(LETTERS.width * height, LETTERS.ratio * rect.height),
  );
  if (small.length < parts.length / 2) return null;
  const strokes = strokesOf(small);
  if (strokes.length < TYPING_LEAST || !advances(strokes)) return null;
  const letters = withoutBlinking(strokes);
  const { start, end } = spanOf(letters);
  const rate = (1000 * (letters.length - 1)) / Math.max(1, end - start);
  const box = boxOf(letters);
  const isTyped =
    rate >= TYPING_RATE.least &&
    rate <= TYPING_RATE.most &&
    box.height <= LINE * height * (1 + letters.length / LINE_LETTERS);
  return isTyped && !isCaret(box, height) ? letters : null;
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
