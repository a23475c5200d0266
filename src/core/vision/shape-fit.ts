import type { Size } from '../scale/rect';
import { boxAround, type MaskBox } from './mask';
import { POINTER_DRAWINGS, type PointerForm, type ShapeDrawing } from './pointer-shapes';
import { edgesOf, holds } from './polygon';

/** How an outline is seen as one that pointers have. */
export interface ShapeFit {
  readonly form: PointerForm;
  readonly hotspot: { readonly x: number; readonly y: number };
  /** Share of both outlines that is common to them, 0 to 1. */
  readonly common: number;
  /** How high it is, in samples. */
  readonly height: number;
  /** Whether it points to the upper right. */
  readonly mirrored: boolean;
}

/** A drawing as samples within its edges. */
interface Raster {
  readonly drawing: ShapeDrawing;
  readonly edges: MaskBox;
  readonly inside: Uint8Array;
}

/** Samples of a drawing along either side. */
const FINE = 64;
/** A drawing may be stretched by this much. */
const STRETCH = 1.35;
/** MaskBox are moved by so many samples, from rough to fine, each so often at most. */
const STEPS = [2, 1, 0.5, 0.25] as const;
const ROUNDS = 12;
/** So many drawings are moved: those that fit best as they are laid at first. */
const LIKELY = 9;
/** A drawing has at least so many samples on each side. */
const LEAST_SIDE = 4;
/** Chunky things are much like discs, whatever they are; hands somewhat like arrows. */
const HANDICAP: Readonly<Partial<Record<PointerForm, number>>> = { busy: 0.92, hand: 0.97 };

function rasterOf(drawing: ShapeDrawing): Raster {
  const edges = edgesOf(drawing.polygons);
  const inside = new Uint8Array(FINE * FINE);
  for (let v = 0; v < FINE; v++)
    for (let u = 0; u < FINE; u++) {
      const x = edges.left + ((u + 0.5) / FINE) * (edges.right - edges.left);
      const y = edges.top + ((v + 0.5) / FINE) * (edges.bottom - edges.top);
      inside[v * FINE + u] = holds(drawing.polygons, x, y) ? 1 : 0;
    }
  return { drawing, edges, inside };
}

let rasters: readonly Raster[] | null = null;

/** The share of an outline and of a drawing between some edges that is common to both. */
function commonOf(
  mask: Uint8Array,
  { width, height }: Size,
  count: number,
  { inside }: Raster,
  { left, top, right, bottom }: MaskBox,
): number {
  let [both, drawn] = [0, 0];
  const [perX, perY] = [FINE / (right - left), FINE / (bottom - top)];
  const to = Math.ceil(right - 0.5);
  for (let y = Math.ceil(top - 0.5); y < bottom - 0.5; y++) {
    const row = Math.floor((y + 0.5 - top) * perY) * FINE;
    for (let x = Math.ceil(left - 0.5); x < to; x++) {
      if (!inside[row + Math.floor((x + 0.5 - left) * perX)]) continue;
      drawn++;
      if (x >= 0 && y >= 0 && x < width && y < height) both += mask[y * width + x]!;
    }
  }
  return both / Math.max(1, count + drawn - both);
}

/** A drawing laid over an outline, and what both have in common there. */
interface Laid {
  readonly raster: Raster;
  readonly at: MaskBox;
  readonly common: number;
}

const isAllowed = ({ edges }: Raster, { left, top, right, bottom }: MaskBox): boolean => {
  const usual = (edges.right - edges.left) / (edges.bottom - edges.top);
  const stretch = (right - left) / Math.max(1, bottom - top) / usual;
  const large = right - left >= LEAST_SIDE && bottom - top >= LEAST_SIDE;
  return large && stretch < STRETCH && stretch > 1 / STRETCH;
};

type Judge = (raster: Raster, at: MaskBox) => number;

/** A drawing laid roughly: as wide or high as what is seen, of which a part may be missing. */
function laidOver(box: MaskBox, raster: Raster, judge: Judge): Laid {
  const { edges } = raster;
  const usual = (edges.right - edges.left) / (edges.bottom - edges.top);
  const [w, h] = [box.right - box.left, box.bottom - box.top];
  const ways: readonly Size[] = [
    { width: w, height: h },
    { width: w, height: w / usual },
    { width: h * usual, height: h },
  ];
  let best: Laid = { raster, at: box, common: -1 };
  for (const { width, height } of ways)
    for (const x of [0, 0.5, 1])
      for (const y of [0, 0.5, 1]) {
        const left = box.left + (w - width) * x;
        const top = box.top + (h - height) * y;
        const at = { left, top, right: left + width, bottom: top + height };
        const common = isAllowed(raster, at) ? judge(raster, at) : -1;
        if (common > best.common) best = { raster, at, common };
      }
  return best;
}

/** Moves and stretches a drawing as long as it has more in common with the outline. */
function settled(laid: Laid, judge: Judge): Laid {
  let best = laid;
  const tryAt = (at: MaskBox): void => {
    if (!isAllowed(best.raster, at)) return;
    const common = judge(best.raster, at);
    if (common > best.common) best = { ...best, at, common };
  };
  for (const step of STEPS)
    for (let round = 0; round < ROUNDS; round++) {
      const { at, common } = best;
      for (const by of [-step, step]) {
        tryAt({ ...at, left: at.left + by });
        tryAt({ ...at, right: at.right + by });
        tryAt({ ...at, top: at.top + by });
        tryAt({ ...at, bottom: at.bottom + by });
        tryAt({ ...at, left: at.left + by, right: at.right + by });
        tryAt({ ...at, top: at.top + by, bottom: at.bottom + by });
      }
      if (best.common <= common) break;
    }
  return best;
}

function fitOf({ raster: { drawing, edges }, at, common }: Laid): ShapeFit {
  const { form, hotspot } = drawing;
  const [across, down] = [edges.right - edges.left, edges.bottom - edges.top];
  const x = at.left + ((hotspot.x - edges.left) / across) * (at.right - at.left);
  const y = at.top + ((hotspot.y - edges.top) / down) * (at.bottom - at.top);
  const mirrored = hotspot.x === edges.right;
  return { form, hotspot: { x, y }, common, height: at.bottom - at.top, mirrored };
}

/**
 * The drawing of a pointer that an outline is most like, and where its hotspot lies: drawings are
 * laid over it and moved and stretched as long as both have more in common (hill climbing on the
 * Jaccard index, over edges in quarters of a sample). Parts of an outline that are not seen shift it
 * little. In samples from the outline's corner; whole samples have their middle at a half.
 *
 * @param mask 1 for each sample that belongs to it
 * @returns null where the outline is empty
 */
export function fitShape(mask: Uint8Array, size: Size): ShapeFit | null {
  const box = boxAround(mask, size.width);
  if (!box) return null;
  rasters ??= POINTER_DRAWINGS.map(rasterOf);
  const judge: Judge = (raster, at) => commonOf(mask, size, box.count, raster, at);
  const worth = ({ raster, common }: Laid) => common * (HANDICAP[raster.drawing.form] ?? 1);
  const byWorth = (a: Laid, b: Laid) => worth(b) - worth(a);
  const laid = rasters.map((raster) => laidOver(box, raster, judge)).sort(byWorth);
  const [best] = laid
    .slice(0, LIKELY)
    .map((one) => settled(one, judge))
    .sort(byWorth);
  return fitOf(best!);
}
