import type { PointerForm } from './pointer-shapes';
import { fitShape, type ShapeFit } from './shape-fit';

/** Where something is, in samples. */
interface Spot {
  readonly x: number;
  readonly y: number;
}

/** An outline that no pointer's drawing has so much in common with is of no form that is known. */
const LEAST_COMMON = 0.5;
/** Tips lie this far within their rims, as a share of the pointer's height. */
const INSET = 0.03;
/** A tip is told by so much of the height. */
const TIP_ROWS = 0.1;
/** A tip that ought to be this far above all that is seen is not seen itself. */
const MISSED = 0.15;
/** Drawings have sharp tips where pointers are round: they reach this far beyond those. */
const SHARP = 0.08;

/** The columns that an outline has in its topmost rows, ascending. */
function topColumns(mask: Uint8Array, width: number, top: number, rows: number): number[] {
  const columns: number[] = [];
  for (let at = top * width; at < Math.min(mask.length, (top + rows) * width); at++)
    if (mask[at]) columns.push(at % width);
  return columns.sort((a, b) => a - b);
}

/** The tip of an arrow or of a finger: what is topmost, where that is seen. */
function tipOf(mask: Uint8Array, width: number, { form, hotspot, height, mirrored }: ShapeFit) {
  const top = Math.floor(mask.indexOf(1) / width);
  const inset = INSET * height;
  const side = mirrored ? -1 : 1;
  if (hotspot.y < top - MISSED * height)
    return { x: hotspot.x + side * inset, y: hotspot.y + SHARP * height + inset };
  const columns = topColumns(mask, width, top, Math.max(2, Math.round(height * TIP_ROWS)));
  const y = top + inset;
  if (form === 'hand') return { x: columns[columns.length >> 1]! + 0.5, y };
  return { x: mirrored ? columns[columns.length - 1]! + 1 - inset : columns[0]! + inset, y };
}

/**
 * What a pointer points with, from its outline: arrows and hands with their tips, which lie a
 * little within their rims; all others with the middle of the drawing that they are most like. In
 * samples from the outline's corner; whole samples have their middle at a half.
 *
 * @param mask 1 for each sample that belongs to it
 */
export function hotspotOf(
  mask: Uint8Array,
  width: number,
  height: number,
): { readonly hotspot: Spot; readonly form: PointerForm } {
  const fit = fitShape(mask, { width, height });
  if (!fit) return { hotspot: { x: width / 2, y: height / 2 }, form: 'other' };
  const form = fit.common < LEAST_COMMON ? 'other' : fit.form;
  const pointed = fit.form === 'arrow' || fit.form === 'hand';
  return { hotspot: pointed ? tipOf(mask, width, fit) : fit.hotspot, form };
}
