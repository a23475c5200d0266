import { parseColor } from '../key/color';

/** Text below this is hard to read for many (WCAG 2.2, success criterion 1.4.3). */
const ENOUGH = 4.5;

/** Light of one channel of 0 to 255 as a share of the brightest (WCAG 2.2, relative luminance). */
function linear(value: number): number {
  const share = value / 255;
  return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
}

function luminance(color: string): number {
  const [r, g, b] = parseColor(color);
  return 0.2126 * linear(r) + 0.7152 * linear(g) + 0.0722 * linear(b);
}

/**
 * How much two colours `#rrggbb` differ in lightness, from 1 (not at all) to 21 (black and white):
 * the contrast ratio of WCAG 2.2.
 */
export function contrastRatio(one: string, other: string): number {
  const [a, b] = [luminance(one), luminance(other)];
  return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
}

/** What is to be said of words in a colour on another; null where they are read easily. */
export function readability({ fill, ink }: { fill: string; ink: string }): string | null {
  const ratio = contrastRatio(fill, ink);
  if (ratio >= ENOUGH) return null;
  // Never rounded up to what is asked for.
  const shown = (Math.floor(ratio * 10) / 10).toFixed(1);
  return `Text and fill colour differ by ${shown} to 1 only; from 4.5 to 1 on words are read easily.`;
}
