import { parseColor, rgbToYuv } from '@/core/key/color';
import type { Size } from '@/core/scale/rect';
import type { FootageKey } from '@/core/project/model';
import type { CoverLayer, FramePlan, Layer, MixLayer, VideoLayer } from '@/core/frame/plan';
import { chromaRangeX } from '@/core/scale/filter';
import { intersect } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, releaseFrame, subPlane, type PlanarFrame, type Plane } from '@/kernels/planar';
import { LruMap } from './lru';
import type { Rasterizer } from './rasterizer';
import { Resampler, type Mapping } from './resampler';
import { ScaledPictures, type ColorPlanes, type PictureMapping } from './scaled';
import type { SourceFrame } from './source-frame';
import { SpriteShop, type PlacedSprite } from './sprites';

/** How much of the wall's hue a pixel may keep, as a share of what it has across it. */
const SPILL_ALLOWED = 0.25;
const BLUR_PASSES = 3;

interface Inset extends ColorPlanes {
  readonly alpha: Plane;
  readonly chromaAlpha: Plane;
}

interface Mask {
  readonly alpha: number;
  readonly chromaAlpha: number;
}

/** Turns a frame plan and the decoded frames it asks for into a picture. The same in a browser worker and in Node. */
export class Compositor {
  private readonly resampler: Resampler;
  private readonly scaled: ScaledPictures;
  private readonly sprites: SpriteShop;
  private readonly masks: LruMap<Mask>;

  constructor(
    private readonly heap: KernelHeap,
    rasterizer: Rasterizer,
  ) {
    this.resampler = new Resampler(heap);
    this.scaled = new ScaledPictures(heap, this.resampler);
    this.sprites = new SpriteShop(heap, rasterizer);
    this.masks = new LruMap(8, (mask) => {
      heap.release(mask.alpha);
      heap.release(mask.chromaAlpha);
    });
  }

  /**
   * Draws a plan into `target`, whose size is the plan's; both sides even.
   *
   * @param frameOf the decoded picture for a video layer, of any size with the shape of the part it
   *   shows (a small copy may stand for its original); null leaves the layer out
   */
  compose(plan: FramePlan, frameOf: FrameOf, target: PlanarFrame): void {
    if (!coversAll(plan)) this.fill(target, plan.background);
    this.draw(plan.layers, plan.size, frameOf, target);
  }

  private draw(layers: readonly Layer[], size: Size, frameOf: FrameOf, target: PlanarFrame): void {
    for (const layer of layers) {
      switch (layer.kind) {
        case 'mix':
          this.mix(layer, size, frameOf, target);
          break;
        case 'video': {
          const source = frameOf(layer);
          if (source) this.video(layer, source, target);
          break;
        }
        case 'cover':
          this.cover(layer, target);
          break;
        case 'halo':
          this.sprite(this.sprites.halo(layer), target, layer.opacity, true);
          break;
        case 'pointer':
          this.sprite(this.sprites.pointer(layer), target, 1, false);
          break;
        case 'stroke':
          if (layer.opacity > 0) for (const placed of this.sprites.strokes(layer, size)) this.sprite(placed, target, layer.opacity, false);
          break;
        case 'shape':
          this.sprite(this.sprites.shape(layer), target, 1, false);
          break;
        case 'text':
          if (layer.opacity > 0) this.sprite(this.sprites.text(layer, size), target, layer.opacity, false);
      }
    }
  }

  /** Draws the second picture beside the first, each over what is there, and brings them together. */
  private mix({ from, to, amount, motion }: MixLayer, size: Size, frameOf: FrameOf, target: PlanarFrame): void {
    const { heap } = this;
    const second = allocateFrame(heap, target.width, target.height);
    heap.copyRows(target.y.at, 0, second.y.at, 0, target.size, 1);
    this.draw(from, size, frameOf, target);
    this.draw(to, size, frameOf, second);
    if (!motion) heap.exports.mixPlane(target.y.at, second.y.at, target.size, Math.round(amount * 255));
    else
      for (const [into, plane, by] of [
        [target.y, second.y, 1],
        [target.u, second.u, 2],
        [target.v, second.v, 2],
      ] as const)
        this.move(into, plane, motion, amount, by);
    releaseFrame(heap, second);
  }

  /** Moves a plane in over another from one side, by whole even pixels of the picture; in a push the other moves out. */
  private move(target: Plane, source: Plane, { kind, from }: NonNullable<MixLayer['motion']>, amount: number, by: number): void {
    const { heap } = this;
    const { width, height } = target;
    const across = from === 'left' || from === 'right';
    const far = (across ? width : height) * by;
    const way = Math.min(across ? width : height, (Math.round((far * amount) / 2) * 2) / by);
    const copy = (from: Plane, fx: number, fy: number, to: Plane, tx: number, ty: number, w: number, h: number) =>
      heap.copyRows(from.at + fy * from.stride + fx, from.stride, to.at + ty * to.stride + tx, to.stride, w, h);
    if (kind === 'push') {
      const kept = heap.allocate(width * height);
      const old: Plane = { at: kept, stride: width, width, height };
      copy(target, 0, 0, old, 0, 0, width, height);
      if (across) copy(old, from === 'right' ? way : 0, 0, target, from === 'right' ? 0 : way, 0, width - way, height);
      else copy(old, 0, from === 'bottom' ? way : 0, target, 0, from === 'bottom' ? 0 : way, width, height - way);
      heap.release(kept);
    }
    if (across) copy(source, from === 'right' ? 0 : width - way, 0, target, from === 'right' ? width - way : 0, 0, way, height);
    else copy(source, 0, from === 'bottom' ? 0 : height - way, target, 0, from === 'bottom' ? height - way : 0, width, way);
  }

  private fill(target: PlanarFrame, color: string): void {
    const [y, u, v] = rgbToYuv(parseColor(color));
    for (const [plane, value] of [
      [target.y, y],
      [target.u, u],
      [target.v, v],
    ] as const)
      this.heap.exports.fillPlane(plane.at, plane.stride, plane.width, plane.height, value);
  }

  private video(layer: VideoLayer, source: SourceFrame, target: PlanarFrame): void {
    const { x, y, width, height } = layer.destination;
    const into = (plane: Plane, by: number) => subPlane(plane, x / by, y / by, width / by, height / by);
    const area = { y: into(target.y, 1), u: into(target.u, 2), v: into(target.v, 2) };
    const mapping = mappingOf(layer, source);
    const { adjust } = layer;
    const finish = (part: ColorPlanes) => {
      if (adjust && !layer.matte) this.adjust(part, adjust);
    };
    if (!layer.key && layer.mask === 'none') {
      const name = `${layer.clipId} ${x} ${y} ${JSON.stringify(adjust)}`;
      this.scaled.draw(name, source, mapping, area, finish);
      return;
    }
    const inset = this.allocateInset(width, height);
    if (layer.key) this.scaleKeyed(layer.key, source.picture, mapping, inset);
    else {
      this.scaleColor(source.picture, mapping, inset);
      this.opaque(inset);
    }
    finish(inset);
    if (layer.mask === 'ellipse') this.maskEllipse(inset);
    if (layer.matte) this.showMatte(inset);
    this.blendInset(inset, area);
    this.heap.release(inset.y.at);
  }

  /** Keys at the footage's own resolution, takes the spill out, and scales colour and opacity into the inset. */
  private scaleKeyed(key: FootageKey, frame: PlanarFrame, mapping: PictureMapping & { alpha: Mapping }, inset: Inset): void {
    const { heap } = this;
    const { exports } = heap;
    const count = frame.u.width * frame.u.height;
    const at = heap.allocate(count * 3);
    const plane = (index: number): Plane => ({ ...frame.u, at: at + count * index });
    const [u, v, alpha] = [plane(0), plane(1), plane(2)];
    const [, keyU, keyV] = rgbToYuv(parseColor(key.color));
    exports.keyAlpha(frame.u.at, frame.v.at, alpha.at, count, keyU, keyV, key.tolerance, key.tolerance + key.softness);
    heap.copyRows(frame.u.at, 0, u.at, 0, count * 2, 1);
    const length = Math.hypot(keyU - 128, keyV - 128);
    if (length > 1) exports.suppressSpill(u.at, v.at, count, (keyU - 128) / length, (keyV - 128) / length, SPILL_ALLOWED);
    this.resampler.resample(alpha, mapping.alpha, inset.alpha);
    this.resampler.resample(alpha, mapping.chroma, inset.chromaAlpha);
    this.scaleColor({ y: frame.y, u, v }, mapping, inset);
    heap.release(at);
  }

  private scaleColor(from: ColorPlanes, { luma, chroma }: PictureMapping, to: ColorPlanes): void {
    this.resampler.resample(from.y, luma, to.y);
    this.resampler.resample(from.u, chroma, to.u);
    this.resampler.resample(from.v, chroma, to.v);
  }

  /** Brightness and contrast by a table for each plane; contrast widens the colours too, as it does in RGB. */
  private adjust(area: ColorPlanes, { brightness, contrast }: NonNullable<VideoLayer['adjust']>): void {
    const { heap } = this;
    const table = (middle: number, shift: number) =>
      heap.put(
        Uint8Array.from({ length: 256 }, (_, i) => Math.min(255, Math.max(0, Math.round((i - middle) * contrast + middle + shift)))),
      );
    const luma = table(126, brightness * 219);
    const chroma = table(128, 0);
    for (const [plane, at] of [
      [area.y, luma],
      [area.u, chroma],
      [area.v, chroma],
    ] as const)
      heap.exports.lookUpPlane(plane.at, plane.stride, plane.width, plane.height, at);
    heap.release(luma);
    heap.release(chroma);
  }

  private allocateInset(width: number, height: number): Inset {
    const full = width * height;
    const quarter = full / 4;
    const at = this.heap.allocate(full * 2 + quarter * 3);
    const plane = (offset: number, by: number): Plane => ({ at: at + offset, stride: width / by, width: width / by, height: height / by });
    return {
      y: plane(0, 1),
      alpha: plane(full, 1),
      u: plane(full * 2, 2),
      v: plane(full * 2 + quarter, 2),
      chromaAlpha: plane(full * 2 + quarter * 2, 2),
    };
  }

  private opaque({ alpha, chromaAlpha }: Inset): void {
    for (const plane of [alpha, chromaAlpha]) this.heap.exports.fillPlane(plane.at, plane.stride, plane.width, plane.height, 255);
  }

  private maskEllipse({ alpha, chromaAlpha }: Inset): void {
    const mask = this.masks.get(`${alpha.width} ${alpha.height}`, () => ({
      alpha: this.heap.put(ellipseCoverage(alpha.width, alpha.height)),
      chromaAlpha: this.heap.put(ellipseCoverage(chromaAlpha.width, chromaAlpha.height)),
    }));
    this.heap.exports.multiplyPlane(alpha.at, mask.alpha, alpha.width * alpha.height);
    this.heap.exports.multiplyPlane(chromaAlpha.at, mask.chromaAlpha, chromaAlpha.width * chromaAlpha.height);
  }

  private showMatte(inset: Inset): void {
    const { heap } = this;
    const luma = heap.bytes(inset.y.at, inset.y.width * inset.y.height);
    const alpha = heap.bytes(inset.alpha.at, luma.length);
    for (let i = 0; i < luma.length; i++) luma[i] = 16 + Math.round((alpha[i]! * 219) / 255);
    for (const plane of [inset.u, inset.v]) heap.exports.fillPlane(plane.at, plane.stride, plane.width, plane.height, 128);
    this.opaque(inset);
  }

  private blendInset(inset: Inset, area: ColorPlanes): void {
    const { blendPlane } = this.heap.exports;
    const blend = (to: Plane, from: Plane, alpha: Plane) =>
      blendPlane(to.at, to.stride, from.at, from.stride, alpha.at, alpha.stride, to.width, to.height, 255, 0, 0, 0);
    blend(area.y, inset.y, inset.alpha);
    blend(area.u, inset.u, inset.chromaAlpha);
    blend(area.v, inset.v, inset.chromaAlpha);
  }

  private cover({ destination, radius }: CoverLayer, target: PlanarFrame): void {
    const { x, y, width, height } = destination;
    const scratch = this.heap.allocate(width * height);
    for (const [plane, by] of [
      [target.y, 1],
      [target.u, 2],
      [target.v, 2],
    ] as const) {
      const part = subPlane(plane, x / by, y / by, width / by, height / by);
      this.heap.exports.boxBlurPlane(
        part.at,
        part.stride,
        part.width,
        part.height,
        Math.max(1, Math.round(radius / by)),
        BLUR_PASSES,
        scratch,
      );
    }
    this.heap.release(scratch);
  }

  /** Blends a sprite, clipped to the target; `tint` leaves dark pixels dark. */
  private sprite({ sprite, x, y }: PlacedSprite, target: PlanarFrame, opacity: number, tint: boolean): void {
    const seen = intersect(
      { x, y, width: sprite.width, height: sprite.height },
      { x: 0, y: 0, width: target.width & ~1, height: target.height & ~1 },
    );
    if (seen.width < 2 || seen.height < 2) return;
    const strength = Math.round(opacity * 255);
    const light = subPlane(target.y, seen.x, seen.y, seen.width, seen.height);
    const blend = (to: Plane, from: Plane, alpha: Plane, by: number) => {
      const width = seen.width / by;
      const height = seen.height / by;
      const t = subPlane(to, seen.x / by, seen.y / by, width, height);
      const s = subPlane(from, (seen.x - x) / by, (seen.y - y) / by, width, height);
      const a = subPlane(alpha, (seen.x - x) / by, (seen.y - y) / by, width, height);
      this.heap.exports.blendPlane(
        t.at,
        t.stride,
        s.at,
        s.stride,
        a.at,
        a.stride,
        width,
        height,
        strength,
        tint ? light.at : 0,
        light.stride,
        by,
      );
    };
    // Colour first: the tint reads the luma as it was.
    blend(target.u, sprite.u, sprite.chromaAlpha, 2);
    blend(target.v, sprite.v, sprite.chromaAlpha, 2);
    blend(target.y, sprite.y, sprite.alpha, 1);
  }
}

/** The decoded picture for a video layer; null when there is none. */
type FrameOf = (layer: VideoLayer) => SourceFrame | null;

/** Whether the first layer hides the background wholly. */
function coversAll({ layers, size }: FramePlan): boolean {
  const first = layers[0];
  if (first?.kind !== 'video' || first.key || first.mask !== 'none') return false;
  const { x, y, width, height } = first.destination;
  return x <= 0 && y <= 0 && x + width >= size.width && y + height >= size.height;
}

/** Where a layer's samples are in the picture at hand; `alpha` takes chroma samples for luma ones. */
function mappingOf(
  { source, footage, destination, mirror }: VideoLayer,
  { picture, part }: SourceFrame,
): PictureMapping & { alpha: Mapping } {
  const shown = part ?? { x: 0, y: 0, ...footage };
  const sx = picture.width / shown.width;
  const sy = picture.height / shown.height;
  const columns = { origin: (source.x - shown.x) * sx, span: source.width * sx };
  const rows = { origin: (source.y - shown.y) * sy, span: source.height * sy };
  const chromaRows = { origin: rows.origin / 2, span: rows.span / 2 };
  return {
    luma: { columns, rows, mirror },
    chroma: { columns: chromaRangeX(columns.origin, columns.span, columns.span / destination.width), rows: chromaRows, mirror },
    alpha: { columns: { origin: columns.origin / 2 + 0.25, span: columns.span / 2 }, rows: chromaRows, mirror },
  };
}

/** Coverage of each pixel of a rectangle by the ellipse in it, 0 to 255, with a soft edge one pixel wide. */
function ellipseCoverage(width: number, height: number): Uint8Array {
  const mask = new Uint8Array(width * height);
  const rx = width / 2;
  const ry = height / 2;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const nx = (x + 0.5 - rx) / rx;
      const ny = (y + 0.5 - ry) / ry;
      const d = Math.hypot(nx, ny);
      const gradient = Math.hypot(nx / rx, ny / ry) / (d || 1);
      mask[y * width + x] = Math.round(255 * Math.min(1, Math.max(0, (1 - d) / gradient + 0.5)));
    }
  return mask;
}
