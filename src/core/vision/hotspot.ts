/** What a pointer is, as far as its outline tells. */
export type PointerForm = 'arrow' | 'text' | 'hand' | 'other';

interface Outline {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

function boxOf(mask: Uint8Array, width: number): Outline {
  let [left, right, top, bottom] = [Infinity, -1, Infinity, -1];
  mask.forEach((on, at) => {
    if (!on) return;
    const x = at % width;
    const y = Math.floor(at / width);
    left = Math.min(left, x);
    right = Math.max(right, x);
    top = Math.min(top, y);
    bottom = Math.max(bottom, y);
  });
  return { left, right, top, bottom };
}

/** The share of an outline that it has in common with itself mirrored. */
function symmetry(
  mask: Uint8Array,
  width: number,
  { left, right, top, bottom }: Outline,
  across: boolean,
): number {
  let [both, either] = [0, 0];
  for (let y = top; y <= bottom; y++)
    for (let x = left; x <= right; x++) {
      const one = mask[y * width + x]!;
      const u = across ? left + right - x : x;
      const v = across ? y : top + bottom - y;
      const other = mask[v * width + u]!;
      both += one & other;
      either += one | other;
    }
  return both / Math.max(1, either);
}

/** The middle of what an outline has in its topmost rows. */
function tip(mask: Uint8Array, width: number, { left, right, top }: Outline, rows: number): number {
  const columns: number[] = [];
  for (let y = top; y < top + rows; y++)
    for (let x = left; x <= right; x++) if (mask[y * width + x]) columns.push(x);
  columns.sort((a, b) => a - b);
  return columns[columns.length >> 1] ?? left;
}

/**
 * The tip of an arrow: where its left edge and its long slope meet, both taken from the middle of
 * its upper half, since the tip itself is often not seen on a ground of its colour.
 */
function arrowTip(mask: Uint8Array, width: number, { left, right, top, bottom }: Outline) {
  const rows: { y: number; first: number; last: number }[] = [];
  const height = bottom - top + 1;
  for (let y = top + Math.round(height * 0.15); y < top + Math.round(height * 0.6); y++) {
    const on = (x: number) => mask[y * width + x];
    let [first, last] = [left, right];
    while (first < right && !on(first)) first++;
    while (last > first && !on(last)) last--;
    rows.push({ y, first, last: last + 1 });
  }
  // Rows from the tip to where the head is widest.
  const widest = rows.reduce((best, row) => (row.last > best.last ? row : best), rows[0]!);
  const head = rows.filter(({ y }) => y <= widest.y);
  if (head.length < 4) return { x: left, y: top };
  const edge = lineThrough(head.map(({ y, first }) => [y + 0.5, first] as const));
  const slope = lineThrough(head.map(({ y, last }) => [y + 0.5, last] as const));
  if (slope.rise - edge.rise < 0.2) return { x: left, y: top };
  const y = (edge.at - slope.at) / (slope.rise - edge.rise);
  // It does not lie far from what is seen of it; where a rim is round, it lies within.
  const bounded = Math.min(top + height * 0.1, Math.max(top - height * 0.15, y));
  return { x: edge.at + edge.rise * bounded, y: (bounded + top) / 2 };
}

/** The line nearest to points, by least squares: `at + rise * t`. */
function lineThrough(points: readonly (readonly [t: number, value: number])[]) {
  const n = points.length;
  const [t0, v0] = [0, 1].map((i) => points.reduce((sum, point) => sum + point[i]!, 0) / n);
  const over = points.reduce((sum, [t, v]) => sum + (t - t0!) * (v - v0!), 0);
  const rise = over / points.reduce((sum, [t]) => sum + (t - t0!) ** 2, 0);
  return { at: v0! - rise * t0!, rise };
}

/**
 * What a pointer points with, from its outline: an arrow with the tip at its upper left, a hand with
 * the tip of its finger, what is the same on both sides (text cursor, cross, double arrow) with its
 * middle. In samples from the outline's corner; whole samples have their middle at a half.
 */
export function hotspotOf(
  mask: Uint8Array,
  width: number,
  height: number,
): { readonly hotspot: { readonly x: number; readonly y: number }; readonly form: PointerForm } {
  const box = boxOf(mask, width);
  if (box.right < 0) return { hotspot: { x: width / 2, y: height / 2 }, form: 'other' };
  const w = box.right - box.left + 1;
  const h = box.bottom - box.top + 1;
  const middle = { x: box.left + w / 2, y: box.top + h / 2 };
  const sides = symmetry(mask, width, box, true);
  const ends = symmetry(mask, width, box, false);
  if (w < 0.7 * h && sides > 0.6 && ends > 0.7) return { hotspot: middle, form: 'text' };
  if (sides > 0.75 && ends > 0.75) return { hotspot: middle, form: 'other' };
  const finger = tip(mask, width, box, Math.max(1, Math.round(h * 0.12)));
  // An arrow's tip is where its left edge begins, a finger stands further in.
  if (finger - box.left < 0.2 * w) return { hotspot: arrowTip(mask, width, box), form: 'arrow' };
  if (finger - box.left < 0.7 * w)
    return { hotspot: { x: finger + 0.5, y: box.top }, form: 'hand' };
  return { hotspot: middle, form: 'other' };
}
