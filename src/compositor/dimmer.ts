import type { RegionEffect } from '@/core/frame/plan';
import type { Mask } from '@/core/layout/mask';
import { evenRound, intersect, type InOutput, type Rect } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import { subPlane, type Plane } from '@/kernels/planar';
import type { Covers } from './covers';
import { allocateInset, fillOpaque, layInset, maskInset, releaseInset } from './inset';
import type { MaskShop } from './masks';
import { copyColors, type ColorPlanes } from './scaled';

type Dim = RegionEffect & { readonly kind: 'dim' };

/** Far from everything: what is faded outside of a disc there is faded all over. */
const NOWHERE = -1e7;

/** Makes all of an area less but for a part of it: darker, greyer, or blurred. */
export class Dimmer {
  constructor(
    private readonly heap: KernelHeap,
    private readonly masks: MaskShop,
    private readonly covers: Covers,
  ) {}

  /**
   * Dims an area of a picture.
   *
   * @param place the area in the picture, on even pixels
   * @param area its planes
   */
  draw(place: InOutput, effect: Dim, area: ColorPlanes): void {
    const { center, inner, outer, shape, blur } = effect;
    // A disc in an area that is only made darker needs no second picture.
    if (shape === 'disc' && blur < 1)
      this.fade(area, effect, { x: center.x - place.x, y: center.y - place.y, inner, outer });
    else this.around(place, effect, area);
  }

  /** Fades light and colour outside of a disc, whose middle is in pixels of the area. */
  private fade(
    { y, u, v }: ColorPlanes,
    { dark, drained }: Dim,
    disc: { x: number; y: number; inner: number; outer: number },
  ): void {
    const fade = (plane: Plane, by: number, value: number, share: number) => {
      const strength = Math.round(share * 255);
      // Chroma stands on the left column of its pair.
      const x = (disc.x + (by === 2 ? 0.5 : 0)) / by;
      if (strength)
        this.heap.exports.fadeOutside(
          plane.at,
          plane.stride,
          plane.width,
          plane.height,
          x,
          disc.y / by,
          disc.inner / by,
          disc.outer / by,
          value,
          strength,
        );
    };
    fade(y, 1, 16, dark);
    // What gets darker loses colour as well.
    const gone = 1 - (1 - dark) * (1 - drained);
    fade(u, 2, 128, gone);
    fade(v, 2, 128, gone);
  }

  /** Keeps the clear part aside, changes all, and lays that part over it with a soft edge. */
  private around(place: InOutput, effect: Dim, area: ColorPlanes): void {
    const { heap } = this;
    const { inner, outer, shape, blur } = effect;
    const box = clearBox(place, effect);
    const { width, height } = box;
    const seen = intersect(box, place);
    const clear = allocateInset(heap, width, height);
    const from = partOf(area, seen, place);
    const to = partOf(clear, seen, box);
    if (seen.width && seen.height) copyColors(heap, from, to);
    if (blur >= 1) this.covers.draw(place, { kind: 'blur', radius: blur }, area);
    this.fade(area, effect, { x: NOWHERE, y: NOWHERE, inner: 0, outer: 1 });
    if (seen.width && seen.height) {
      fillOpaque(heap, clear);
      const feather = outer - inner;
      // A soft edge with square corners would shine out of them.
      const mask: Mask =
        shape === 'disc'
          ? { shape: 'ellipse', feather }
          : { shape: 'rounded', radius: Math.min(feather, height / 2), feather };
      maskInset(heap, clear, this.masks.of(mask, width, height));
      const alphas = partOf(
        { y: clear.alpha, u: clear.chromaAlpha, v: clear.chromaAlpha },
        seen,
        box,
      );
      layInset(heap, { ...to, alpha: alphas.y, chromaAlpha: alphas.u }, from);
    }
    releaseInset(heap, clear);
  }
}

/**
 * The even rectangle around what stays clear. Of one that reaches far beyond the area, as much as
 * that no edge is seen of it: a rectangle of a slip of the hand may be as large as it likes.
 */
function clearBox(place: InOutput, { center, inner, outer, shape, tall }: Dim): InOutput {
  const beyond = evenRound(outer - inner) + 4;
  // A disc is never straight along an edge, and never as large.
  const far = shape === 'box' ? beyond : Infinity;
  const along = (middle: number, half: number, start: number, length: number) => {
    const [from, to] = [middle - half, middle + half];
    const size = Math.max(4, evenRound(to - from));
    const begins = evenRound(middle - size / 2);
    const first = Math.max(begins, Math.min(evenRound(start - far), begins + size - 4));
    const last = Math.min(begins + size, Math.max(evenRound(start + length + far), first + 4));
    return { first, size: last - first };
  };
  const across = along(center.x, outer, place.x, place.width);
  const down = along(center.y, outer * tall, place.y, place.height);
  return { x: across.first, y: down.first, width: across.size, height: down.size };
}

/** The part of planes that stand somewhere, all on even pixels. */
function partOf({ y, u, v }: ColorPlanes, part: Rect, at: Rect): ColorPlanes {
  const left = part.x - at.x;
  const top = part.y - at.y;
  const { width, height } = part;
  return {
    y: subPlane(y, left, top, width, height),
    u: subPlane(u, left / 2, top / 2, width / 2, height / 2),
    v: subPlane(v, left / 2, top / 2, width / 2, height / 2),
  };
}
