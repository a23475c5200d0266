import { assertNever } from '@/core/assert-never';
import type { RegionEffect } from '@/core/frame/plan';
import type { InOutput } from '@/core/scale/rect';
import { parseColor, rgbToYuv } from '@/core/key/color';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, blurRoom, releaseFrame, type PlanarFrame } from '@/kernels/planar';
import { LruMap } from './lru';
import { copyColors, type ColorPlanes } from './scaled';

const BLUR_PASSES = 3;
const PLANES = ['y', 'u', 'v'] as const;

/** The effects that make what lies below illegible. */
export type CoverEffect = Exclude<RegionEffect, { kind: 'dim' }>;

/**
 * What lay under a cover and what it became; null as long as the cover was seen in its place once
 * only.
 */
type Kept = { readonly bare: PlanarFrame; readonly covered: PlanarFrame } | null;

/**
 * Makes parts of a picture illegible. A cover mostly lies still over what stands still: then the
 * picture before is taken, if what is under it is the same to the bit. Blurring takes some ten
 * times as long as comparing.
 */
export class Covers {
  private readonly kept: LruMap<Kept>;

  constructor(private readonly heap: KernelHeap) {
    this.kept = new LruMap(4, (kept) => {
      if (kept) for (const frame of [kept.bare, kept.covered]) releaseFrame(heap, frame);
    });
  }

  /** Covers an area of the picture. */
  draw(place: InOutput, effect: CoverEffect, area: ColorPlanes): void {
    if (effect.kind === 'solid') return this.hide(effect, area);
    const name = JSON.stringify([place, effect.kind, effect.radius]);
    const before = this.kept.find(name);
    if (before === undefined) {
      this.kept.set(name, null);
      return this.hide(effect, area);
    }
    if (before && this.same(area, before.bare)) return copyColors(this.heap, before.covered, area);
    const { width, height } = area.y;
    const kept = before ?? {
      bare: allocateFrame(this.heap, width, height),
      covered: allocateFrame(this.heap, width, height),
    };
    // Putting in its place what is there would give it back.
    if (!before) this.kept.set(name, kept);
    copyColors(this.heap, area, kept.bare);
    this.hide(effect, area);
    copyColors(this.heap, area, kept.covered);
  }

  private hide(effect: CoverEffect, area: ColorPlanes): void {
    switch (effect.kind) {
      case 'blur':
        return this.blur(effect.radius, area);
      case 'mosaic':
        return this.mosaic(effect.radius, area);
      case 'solid':
        return this.paint(effect.color, area);
      default:
        return assertNever(effect);
    }
  }

  private blur(radius: number, area: ColorPlanes): void {
    using scratch = this.heap.borrow(blurRoom(area.y.width, area.y.height));
    PLANES.forEach((name, i) => {
      const { at, stride, width, height } = area[name];
      const own = Math.max(1, Math.round(radius / (i ? 2 : 1)));
      this.heap.exports.boxBlurPlane(at, stride, width, height, own, BLUR_PASSES, scratch.at);
    });
  }

  private mosaic(radius: number, area: ColorPlanes): void {
    // Blocks are even, so that chroma has the same.
    const block = Math.max(2, Math.round(radius) * 2);
    PLANES.forEach((name, i) => {
      const { at, stride, width, height } = area[name];
      this.heap.exports.mosaicPlane(at, stride, width, height, block / (i ? 2 : 1));
    });
  }

  private paint(color: string, area: ColorPlanes): void {
    const values = rgbToYuv(parseColor(color));
    PLANES.forEach((name, i) => {
      const { at, stride, width, height } = area[name];
      this.heap.exports.fillPlane(at, stride, width, height, values[i]!);
    });
  }

  private same(a: ColorPlanes, b: ColorPlanes): boolean {
    return PLANES.every(
      (name) =>
        this.heap.exports.sameRows(
          a[name].at,
          a[name].stride,
          b[name].at,
          b[name].stride,
          a[name].width,
          a[name].height,
        ) === 1,
    );
  }
}
