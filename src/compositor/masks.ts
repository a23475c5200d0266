import { assertNever } from '@/core/assert-never';
import { SQUIRCLE_POWER, type Mask } from '@/core/layout/mask';
import type { KernelHeap } from '@/kernels/heap';
import { blurRoom } from '@/kernels/planar';
import type { MaskPlanes } from './inset';
import { LruMap } from './lru';
import type { Rasterizer } from './rasterizer';

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
    const inside = insideOf(mask, width, height);
    const edge = Math.max(1, mask.feather);
    // A feather lies within the shape; an edge of one pixel stands half on both sides, except at
    // the very border of the inset.
    const shift = mask.feather > 1 ? 0 : mask.shape === 'rectangle' ? 1 : 0.5;
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const share = Math.min(1, Math.max(0, inside(x + 0.5, y + 0.5) / edge + shift));
        out[y * width + x] = Math.round(
          255 * (mask.feather > 1 ? share * share * (3 - 2 * share) : share),
        );
      }
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

/** How far inside a mask's outline a place is, in pixels; below 0 outside. */
function insideOf(mask: Exclude<Mask, { readonly shape: 'path' }>, width: number, height: number) {
  switch (mask.shape) {
    case 'ellipse':
      return insideEllipse(width, height);
    case 'squircle':
      return insideSquircle(width, height);
    case 'rounded':
      return insideBox(width, height, mask.radius);
    case 'rectangle':
      return insideBox(width, height, 0);
    default:
      return assertNever(mask);
  }
}

/** The same for a superellipse (G. Lamé, 1818), to first order. */
function insideSquircle(width: number, height: number) {
  const [rx, ry] = [width / 2, height / 2];
  const n = SQUIRCLE_POWER;
  return (x: number, y: number) => {
    const [nx, ny] = [Math.abs(x - rx) / rx, Math.abs(y - ry) / ry];
    const d = (nx ** n + ny ** n) ** (1 / n);
    const slope = Math.hypot(nx ** (n - 1) / rx, ny ** (n - 1) / ry) / (d || 1) ** (n - 1);
    return (1 - d) / (slope || 1 / Math.min(rx, ry));
  };
}

/** How far inside an ellipse a place is, in pixels, to first order; below 0 outside. */
function insideEllipse(width: number, height: number) {
  const [rx, ry] = [width / 2, height / 2];
  return (x: number, y: number) => {
    const [nx, ny] = [(x - rx) / rx, (y - ry) / ry];
    const d = Math.hypot(nx, ny);
    return ((1 - d) * (d || 1)) / (Math.hypot(nx / rx, ny / ry) || 1 / Math.min(rx, ry));
  };
}

/** How far inside a rectangle with rounded corners a place is, in pixels; below 0 outside. */
function insideBox(width: number, height: number, radius: number) {
  return (x: number, y: number) => {
    const qx = Math.abs(x - width / 2) - width / 2 + radius;
    const qy = Math.abs(y - height / 2) - height / 2 + radius;
    return radius - Math.hypot(Math.max(0, qx), Math.max(0, qy)) - Math.min(0, Math.max(qx, qy));
  };
}
