import { isWithin, unite, type Rect } from '../scale/rect';

/*
 * Typing is told from what else changes at a place: letters that follow each other along a line, at
 * the rate of a person.
 */

/** What changed of a place in one picture. */
export interface Part {
  readonly ms: number;
  readonly rect: Rect;
  /** Whether something that is large enough to have opened changed, not only the ring around it. */
  readonly isFilled: boolean;
}

/** A line of text is no higher than this share of the picture, with what the codec adds. */
export const LINE = 0.075;
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
/** The caret of a text field blinks within these shares of the picture's height. */
const CARET = { width: 0.03, height: 0.06 };

/** Whether something is no larger than a caret that blinks in a picture of some height. */
export const isCaret = ({ width, height }: Rect, ofPicture: number): boolean =>
  width <= CARET.width * ofPicture && height <= CARET.height * ofPicture;

const endOf = ({ x, width }: Rect): number => x + width;

const isOneLine = (a: Rect, b: Rect): boolean => a.y < b.y + b.height && b.y < a.y + a.height;

/** All that changed of a place. */
export const boxOf = (parts: readonly Part[]): Rect => parts.map(({ rect }) => rect).reduce(unite);

/** When it changed first and last, in ms. */
export const spanOf = (parts: readonly Part[]) => ({
  start: parts[0]!.ms,
  end: parts[parts.length - 1]!.ms,
});

/** How many of the steps from part to part go on along a line, back along it, and elsewhere. */
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

/** Whether what changed stayed on a line and went on along it, to the right or to the left. */
function advances(parts: readonly Part[]): boolean {
  const { on, back, elsewhere } = stepsAlong(parts);
  const steps = parts.length - 1;
  const [most, least] = [Math.max(on, back), Math.min(on, back)];
  if (!most || elsewhere > steps / 4 || most < 3 * least) return false;
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
 *
 * @param parts in order of time
 * @param height of the picture, in pixels
 */
export function lettersOf(parts: readonly Part[], height: number): readonly Part[] | null {
  const small = parts.filter(
    ({ rect }) =>
      rect.height <= LINE * height &&
      rect.width <= Math.min(LETTERS.width * height, LETTERS.ratio * rect.height),
  );
  if (small.length < parts.length / 2) return null;
  const strokes = strokesOf(small);
  if (!advances(strokes)) return null;
  const letters = withoutBlinking(strokes);
  if (letters.length < TYPING_LEAST) return null;
  const { start, end } = spanOf(letters);
  const rate = (1000 * (letters.length - 1)) / Math.max(1, end - start);
  const box = boxOf(letters);
  const isTyped =
    rate >= TYPING_RATE.least &&
    rate <= TYPING_RATE.most &&
    box.height <= LINE * height * (1 + letters.length / LINE_LETTERS);
  return isTyped && !isCaret(box, height) ? letters : null;
}
