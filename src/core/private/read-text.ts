import { unite, type Rect } from '../scale/rect';
import { privateIn, type PrivateKind } from './patterns';

/** A word that was read in a picture. */
export interface ReadWord {
  readonly text: string;
  /** In pixels of the picture. */
  readonly rect: Rect;
  /** How sure it is, 0 to 1. */
  readonly confidence: number;
}

/** Private data that was read in a picture. */
export interface PrivateText {
  readonly kind: PrivateKind;
  readonly rect: Rect;
  readonly confidence: number;
  /** What it says; it is never written anywhere. */
  readonly text: string;
}

/** Words further apart than this, in heights of a line, are of two columns. */
const GAP = 1.6;

/** Words stand in one line where they share so much of the lower one's height. */
const SHARED = 0.5;

/** Words in lines, by where they stand: what reads them takes some that stand alone for lines. */
function linesOf(words: readonly ReadWord[]): ReadWord[][] {
  const lines: ReadWord[][] = [];
  for (const word of [...words].sort((a, b) => a.rect.height - b.rect.height)) {
    const { y, height } = word.rect;
    const line = lines.find(([first]) => {
      const { rect } = first!;
      const shared = Math.min(y + height, rect.y + rect.height) - Math.max(y, rect.y);
      return shared >= SHARED * Math.min(height, rect.height);
    });
    if (line) line.push(word);
    else lines.push([word]);
  }
  return lines;
}

/** The words of a line in those that belong together: columns of a table are apart. */
function columnsOf(line: readonly ReadWord[]): ReadWord[][] {
  const columns: ReadWord[][] = [];
  for (const word of [...line].sort((a, b) => a.rect.x - b.rect.x)) {
    const last = columns.at(-1)?.at(-1);
    const near =
      last && word.rect.x - (last.rect.x + last.rect.width) < GAP * Math.max(12, last.rect.height);
    if (near) columns.at(-1)!.push(word);
    else columns.push([word]);
  }
  return columns;
}

/** The part of a word's rectangle that some of its characters take, in equal shares. */
function partOf({ text, rect }: ReadWord, from: number, to: number): Rect {
  const share = rect.width / Math.max(1, text.length);
  const [first, last] = [Math.max(0, from), Math.min(text.length, to)];
  return { ...rect, x: rect.x + first * share, width: (last - first) * share };
}

/**
 * What is private in words that were read in a picture.
 *
 * @param all in any order
 * @param own words of one's own
 */
export function privateTexts(all: readonly ReadWord[], own: readonly string[] = []): PrivateText[] {
  return linesOf(all)
    .flatMap(columnsOf)
    .flatMap((words) => {
      const line = words.map(({ text }) => text).join(' ');
      return privateIn(line, own).map(({ kind, from, to }): PrivateText => {
        const parts: Rect[] = [];
        let [at, confidence] = [0, 1];
        for (const word of words) {
          if (at < to && at + word.text.length > from) {
            parts.push(partOf(word, from - at, to - at));
            confidence = Math.min(confidence, word.confidence);
          }
          at += word.text.length + 1;
        }
        const text = line.slice(from, to).replace(/\s/g, '');
        return { kind, confidence, text, rect: parts.reduce(unite) };
      });
    });
}

/** Of a text that is this long, the last signs are told too. */
const LONG = 10;

/**
 * A text of which its owner knows what is meant, and nobody else what it says: the first two signs,
 * and of a long one the last two.
 */
export const hintOf = (text: string): string => {
  const signs = [...text.trim()];
  const last = signs.length >= LONG ? signs.slice(-2) : [];
  return `${signs.slice(0, 2).join('')}••••${last.join('')}`;
};
