import bidiFactory from 'bidi-js';
import { breakLines } from './break-lines';

const bidi = bidiFactory();

/** A line of a text, and whether what it belongs to reads from right to left. */
export interface SetLine {
  readonly text: string;
  readonly rightToLeft: boolean;
}

/** What ends a paragraph: the line breaks of a text, by UAX 14. */
const END = '\\r\\n|[\\n\\v\\f\\r\\u0085\\u2028\\u2029]';
const ENDS = new RegExp(END);
const LAST_END = new RegExp(`(${END})$`);

/**
 * Whether a paragraph reads from right to left: its base direction by the rules P2 and P3 of the
 * Unicode bidirectional algorithm (UAX 9), that is by its first letter with a direction, without
 * those in isolates. One without any reads from left to right.
 */
export function isRightToLeft(paragraph: string): boolean {
  const [first] = bidi.getEmbeddingLevels(paragraph).paragraphs;
  return (first?.level ?? 0) % 2 === 1;
}

/**
 * Sets a text: its paragraphs each in their own direction, broken into lines no wider than `most`.
 *
 * @param width width of a line, in the unit of `most`
 */
export function setLines(
  text: string,
  most: number,
  width: (line: string) => number,
): readonly SetLine[] {
  // One at the very end begins no line.
  return text
    .replace(LAST_END, '')
    .split(ENDS)
    .flatMap((paragraph) => {
      const rightToLeft = isRightToLeft(paragraph);
      return breakLines(paragraph, most, width).map((line) => ({ text: line, rightToLeft }));
    });
}
