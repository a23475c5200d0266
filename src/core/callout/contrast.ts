import { parseColor, type Rgb } from '../key/color';

/** Text below this is hard to read for many (WCAG 2.2, success criterion 1.4.3). */
export const ENOUGH = 4.5;

/** Light of one channel of 0 to 255 as a share of the brightest (WCAG 2.2, relative luminance). */
function linear(value: number): number {
  const share = value / 255;
  return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
}

/** The light of a colour as a share of the brightest (WCAG 2.2, relative luminance). */
export const luminance = ([r, g, b]: Rgb): number =>
  0.2126 * linear(r) + 0.7152 * linear(g) + 0.0722 * linear(b);

/** The contrast ratio of two lights (WCAG 2.2), from 1 to 21. */
export const ratioOf = (a: number, b: number): number =>
  (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);

/** A contrast ratio in words; never rounded up to what is asked for. */
export const shownRatio = (ratio: number): string =>
  `${(Math.floor(ratio * 10) / 10).toFixed(1)} to 1`;

/**
 * How much two colours `#rrggbb` differ in lightness, from 1 (not at all) to 21 (black and white):
 * the contrast ratio of WCAG 2.2.
 */
export function contrastRatio(one: string, other: string): number {
  return ratioOf(luminance(parseColor(one)), luminance(parseColor(other)));
}

/** What is to be said of words in a colour on another; null where they are read easily. */
export function readability({
  fill,
  ink,
  ground = true,
}: {
  readonly fill: string;
  readonly ink: string;
  readonly ground?: boolean;
}): string | null {
  // Without a ground it counts what lies beneath.
  const ratio = ground ? contrastRatio(fill, ink) : Infinity;
  if (ratio >= ENOUGH) return null;
  return `Text and fill colour differ by ${shownRatio(ratio)} only; from ${shownRatio(ENOUGH)} on words are read easily.`;
}
