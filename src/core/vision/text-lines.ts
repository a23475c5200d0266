import type { Rect } from '../scale/rect';
import type { Edges, Run } from './gradients';
import { takeConnected, type Connected } from './connected';
import type { TextLine } from './page';

/** Letters are so high, in pixels. */
const LOWEST = 5;
const HIGHEST = 110;
/** Parts of a letter are no further apart than this. */
const REACH = { x: 2, y: 1 };
/** Letters of a line stand no further apart than this share of their height. */
const GAP = 1.1;
/** Two letters stand on one line if they share this much of the lower one's height. */
const SHARED = 0.5;
/** A line is longer than high by this. */
const LONG = 1.3;
/** So much of a line's box is edges: less is a drawing, more a texture. */
const SPARSE = 0.06;
const DENSE = 0.75;
/** Of its letters, this share ends on the same level. */
const LEVEL = 0.5;

/** Edges that may be text: strong ones that are no part of long straight ones. */
function textMask({ width, strong }: Edges, level: readonly Run[], upright: readonly Run[]) {
  const mask = strong.slice();
  for (const { at, from, to } of level) mask.fill(0, at * width + from, at * width + to);
  for (const { at, from, to } of upright) for (let y = from; y < to; y++) mask[y * width + at] = 0;
  return mask;
}

/** What hangs together in a mask, with gaps of a pixel or two across. */
function partsOf(mask: Uint8Array, width: number, height: number): Connected[] {
  const parts: Connected[] = [];
  const open = mask.slice();
  const members = new Int32Array(mask.length);
  for (let seed = open.indexOf(1); seed >= 0; seed = open.indexOf(1, seed))
    parts.push(takeConnected(open, { width, height }, seed, REACH, members));
  return parts;
}

const sharedHeight = (a: Pick<Rect, 'y' | 'height'>, b: Rect): number =>
  Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);

/** Whether an upright edge stands between two parts, as of the boxes that they are in. */
function isParted(a: Rect, b: Rect, walls: ReadonlyMap<number, readonly Run[]>): boolean {
  const middle = (Math.max(a.y, b.y) + Math.min(a.y + a.height, b.y + b.height)) / 2;
  for (let x = a.x + a.width; x < b.x; x++)
    if (walls.get(x)?.some(({ from, to }) => from <= middle && middle < to)) return true;
  return false;
}

/** Parts that stand beside each other as the letters of lines, from left to right. */
function linked(
  parts: readonly Connected[],
  walls: ReadonlyMap<number, readonly Run[]>,
): Connected[][] {
  const sorted = [...parts].sort((a, b) => a.x - b.x);
  const lines: OpenLine[] = [];
  let open: OpenLine[] = [];
  for (const part of sorted) {
    let best: { line: OpenLine; gap: number } | null = null;
    open = open.filter(({ end }) => part.x - end < HIGHEST * GAP);
    for (const line of open) {
      const { last, band } = line;
      const height = Math.max(last.height, part.height, line.tallest * 0.7);
      const gap = part.x - line.end;
      if (gap > GAP * height) continue;
      // A comma shares little with the letter after it, but with the line.
      if (sharedHeight(band, part) < SHARED * Math.min(band.height, part.height)) continue;
      if (isParted(last, part, walls)) continue;
      if (!best || gap < best.gap) best = { line, gap };
    }
    if (best) Object.assign(best.line, withPart(best.line.parts, part));
    else {
      const line = withPart([], part);
      lines.push(line);
      open.push(line);
    }
  }
  return lines.map((line) => line.parts);
}

/** A line that letters may still be put to, and what its last ones tell of it. */
interface OpenLine {
  readonly parts: Connected[];
  readonly last: Connected;
  readonly end: number;
  readonly tallest: number;
  /** The rows that they take up. */
  readonly band: Pick<Rect, 'y' | 'height'>;
}

/** Puts a part to those of a line. */
function withPart(parts: Connected[], part: Connected): OpenLine {
  parts.push(part);
  const last = parts.slice(-8);
  const y = Math.min(...last.map((one) => one.y));
  return {
    ...{ parts, last: part },
    end: Math.max(...parts.slice(-3).map((one) => one.x + one.width)),
    tallest: Math.max(...last.map(({ height }) => height)),
    band: { y, height: Math.max(...last.map((one) => one.y + one.height)) - y },
  };
}

/**
 * How high the small letters of a line are: from where its rows begin to be full of edges to where
 * they cease to be.
 */
function lettersOf(mask: Uint8Array, width: number, box: Rect): number {
  const rows = Array.from({ length: box.height }, (_, y) => {
    let sum = 0;
    const from = (box.y + y) * width + box.x;
    for (let x = 0; x < box.width; x++) sum += mask[from + x]!;
    return sum;
  });
  const at = (y: number) => rows[y] ?? 0;
  let [rise, fall] = [
    { y: 0, by: 0 },
    { y: box.height, by: 0 },
  ];
  for (let y = 0; y <= box.height; y++) {
    const by = at(y) - at(y - 1);
    if (by > rise.by && y < box.height * 0.7) rise = { y, by };
    if (-by > fall.by && y > box.height * 0.3) fall = { y, by: -by };
  }
  return Math.max(1, fall.y > rise.y ? fall.y - rise.y : box.height);
}

function lineOf(parts: readonly Connected[], mask: Uint8Array, width: number): TextLine | null {
  const x = Math.min(...parts.map((part) => part.x));
  const y = Math.min(...parts.map((part) => part.y));
  const box = {
    ...{ x, y },
    width: Math.max(...parts.map((part) => part.x + part.width)) - x,
    height: Math.max(...parts.map((part) => part.y + part.height)) - y,
  };
  if (box.height < LOWEST || box.height > HIGHEST || box.width < LONG * box.height) return null;
  const filled = parts.reduce((sum, { count }) => sum + count, 0) / (box.width * box.height);
  if (filled < SPARSE || filled > DENSE) return null;
  const bottoms = parts.map((part) => part.y + part.height).sort((a, b) => a - b);
  const level = bottoms[bottoms.length >> 1]!;
  const tolerance = Math.max(2, box.height * 0.15);
  const even = bottoms.filter((bottom) => Math.abs(bottom - level) <= tolerance).length;
  if (even < LEVEL * bottoms.length) return null;
  return { ...box, letters: lettersOf(mask, width, box) };
}

/**
 * The lines of text on a page, from its edges: what is small, stands beside each other on one level,
 * and is parted by no upright edge. Languages no matter.
 *
 * @param level long straight edges that lie level
 * @param upright and those that stand
 */
export function textLinesOf(
  edges: Edges,
  level: readonly Run[],
  upright: readonly Run[],
): TextLine[] {
  const { width, height } = edges;
  const mask = textMask(edges, level, upright);
  const parts = partsOf(mask, width, height).filter(
    (part) => part.height <= HIGHEST && part.height >= 2 && part.width <= 6 * HIGHEST,
  );
  const walls = new Map<number, Run[]>();
  for (const run of upright) {
    const there = walls.get(run.at);
    if (there) there.push(run);
    else walls.set(run.at, [run]);
  }
  return linked(parts, walls).flatMap((line) => lineOf(line, mask, width) ?? []);
}
