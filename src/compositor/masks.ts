import type { Mask } from '@/core/layout/mask';
import type { KernelHeap } from '@/kernels/heap';
import { blurRoom } from '@/kernels/planar';
import type { MaskPlanes } from './inset';
import { LruMap } from './lru';
import type { Rasterizer } from './rasterizer';
import { coverPlane, FILLED, insideOf, type Profile } from './shapes';

/** Makes masks and keeps those used of late. */
export class MaskShop {
  private readonly masks: LruMap<MaskPlanes>;

  constructor(
    private readonly heap: KernelHeap,
    private readonly rasterizer: Rasterizer,
  ) {
    this.masks = new LruMap(12, ({ alpha, chromaAlpha }) => {
      heap.release(alpha);
      heap.release(chromaAlpha);
    });
  }

  /** The mask for an inset of a size. */
  of(mask: Mask, width: number, height: number): MaskPlanes {
    return this.masks.get(JSON.stringify([mask, width, height]), () => {
      const alpha = this.heap.put(this.coverage(mask, width, height));
      const chromaAlpha = this.heap.allocate(((width + 1) >> 1) * ((height + 1) >> 1) + 16);
      this.heap.exports.halvePlane(alpha, width, width, height, chromaAlpha);
      return { alpha, chromaAlpha };
    });
  }

  /** Coverage of each pixel, 0 to 255; edges are one pixel wide, or as wide as the feather. */
  private coverage(mask: Mask, width: number, height: number): Uint8Array {
    if (mask.shape === 'path') return this.path(mask.points, mask.feather, width, height);
    const out = new Uint8Array(width * height);
    const { feather } = mask;
    const size = { width, height };
    if (feather > 1) coverPlane(out, size, insideOf(mask, size), feathered(feather), false);
    // At the very border of the inset a rectangle has no edge.
    else if (mask.shape === 'rectangle') out.fill(255);
    else coverPlane(out, size, insideOf(mask, size), FILLED);
    return out;
  }

  private path(
    points: readonly { x: number; y: number }[],
    feather: number,
    width: number,
    height: number,
  ): Uint8Array {
    const rgba = this.rasterizer.draw(width, height, (pen) => {
      pen.beginPath();
      points.forEach(({ x, y }, i) => (i ? pen.lineTo(x, y) : pen.moveTo(x, y)));
      pen.closePath();
      pen.fillStyle = '#ffffff';
      pen.fill();
    });
    const out = Uint8Array.from({ length: width * height }, (_, i) => rgba[i * 4 + 3]!);
    const radius = Math.round(feather / 4);
    if (radius < 1) return out;
    const { heap } = this;
    using plane = heap.lend(out);
    using scratch = heap.borrow(blurRoom(width, height));
    heap.exports.boxBlurPlane(plane.at, width, width, height, radius, 3, scratch.at);
    out.set(heap.bytes(plane.at, out.length));
    return out;
  }
}

/** An edge that lies within the outline, so many pixels wide. */
const feathered = (feather: number): Profile => ({
  from: 0,
  to: feather,
  of: (inside) => {
    const share = Math.min(1, Math.max(0, inside / feather));
    return Math.round(255 * share * share * (3 - 2 * share));
  },
});
