import { parseColor, type Rgb } from '../key/color';
import { frameStart, frameAt, type FrameRate, type Ticks } from '../time/ticks';
import { contrastRatio, luminance, ratioOf } from './contrast';
import type { Callout } from './model';
import { fullySeenFrom } from './motion';

/** Callouts are looked at at so many instants of their time. */
const INSTANTS = 5;
/** The worst part of what lies beneath counts from this share of it on: a few spots do not. */
const WORST = 0.1;

/**
 * The colour in which a callout has to be told from whatever lies beneath it; null where it has a
 * ground or an outline of its own, or is meant to show what is beneath.
 */
export function colorOver(callout: Callout): string | null {
  switch (callout.kind) {
    case 'text':
      return callout.ground || callout.outline > 0 ? null : callout.ink;
    case 'arrow':
    case 'line':
    case 'box':
    case 'ellipse':
      return callout.outline > 0 ? null : callout.color;
    default:
      return null;
  }
}

/** The callout as it is measured: what of it is to be told from what lies beneath, and no more. */
export const measured = (callout: Callout): Callout =>
  callout.kind === 'text' ? { ...callout, arrow: false, shadow: false } : callout;

/** Instants spread over the time in which a callout is wholly there. */
export function instantsOf(callout: Callout, rate: FrameRate): Ticks[] {
  const from = Math.min(fullySeenFrom(callout, rate), callout.end - 1);
  // While it goes it is there no more than while it comes.
  const to = Math.max(from, callout.end - 1 - (from - callout.start));
  const all = Array.from({ length: INSTANTS }, (_, i) =>
    frameStart(frameAt(from + ((to - from) * i) / (INSTANTS - 1), rate), rate),
  );
  return [...new Set(all)];
}

/**
 * How much a colour differs from what lies beneath it where it does so least: the contrast ratio of
 * WCAG 2.2 that a tenth of the pixels do not reach; null where there are none.
 */
export function worstContrast(beneath: readonly Rgb[], color: string): number | null {
  const light = luminance(parseColor(color));
  const ratios = beneath.map((one) => ratioOf(luminance(one), light)).sort((a, b) => a - b);
  return ratios[Math.floor(ratios.length * WORST)] ?? null;
}

/** The colour of an outline that parts a colour from anything: dark or light. */
export const edgeFor = (color: string): string =>
  contrastRatio(color, '#ffffff') > contrastRatio(color, '#1e2a32') ? '#ffffff' : '#1e2a32';

/** The width of an outline that is proposed, as a share of the letters, and of a line. */
const OUTLINE = { words: 0.1, lines: 0.35 };
/** Of a callout that says nothing of its line, in frame pixels. */
const USUAL_WIDTH = 8;

/**
 * An outline that parts a callout from anything beneath it: its width in frame pixels, and its
 * colour.
 *
 * @param color that it has itself, `#rrggbb`
 */
export function outlineFor(
  callout: Callout,
  color: string,
): { readonly outline: number; readonly edge: string } {
  const width =
    callout.kind === 'text'
      ? callout.size * OUTLINE.words
      : ('width' in callout ? callout.width : USUAL_WIDTH) * OUTLINE.lines;
  return { outline: Math.max(1, Math.round(width)), edge: edgeFor(color) };
}
