import type { VideoLayer } from '@/core/frame/plan';
import { parseColor, rgbToYuv } from '@/core/key/color';
import { roomAround } from '@/core/frame/needed';
import { sampleWall } from '@/core/key/wall-map';
import type { FootageKey, WallMap } from '@/core/project/model';
import type { Rect, Size } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import { blurRoom, cropFrame, releaseFrame, type Plane, type PlanarFrame } from '@/kernels/planar';
import { allocateInset, releaseInset, type Inset } from './inset';
import { LruMap } from './lru';
import type { ColorPlanes } from './scaled';
import type { SourceFrame } from './source-frame';

/** How much of the wall's hue a pixel may keep, as a share of what it has across it. */
const SPILL_ALLOWED = 0.25;
/** Mixtures with the wall lie within this share of its chroma beside its direction. */
const ACROSS = 0.45;
/** Variance of luma, in code values squared, that counts as noise rather than as an edge. */
const LUMA_NOISE = 2;
/** Opacity within this share of clear or opaque becomes so. */
const EDGE = 0.04;

/** Keying more than this share of a picture takes as long as all of it. */
const NEARLY_ALL = 0.8;

/** Keys pictures at their own resolution: what comes out is scaled afterwards. */
export class Keyer {
  private readonly walls: LruMap<Inset>;
  /**
   * Maps are long to write out for each picture: numbers of those that were, by object and by
   * content.
   */
  private readonly names = new WeakMap<WallMap, number>();
  private readonly contents = new LruMap<number>(16);
  private named = 0;

  constructor(private readonly heap: KernelHeap) {
    this.walls = new LruMap(4, (wall) => releaseInset(heap, wall));
  }

  /**
   * The presenter without the wall as far as a layer shows them, their colours multiplied by their
   * opacity, and the part of the recording that is. The picture is to be released by the caller.
   */
  key(
    key: FootageKey,
    layer: VideoLayer,
    { picture, part }: SourceFrame,
  ): { inset: Inset; part: Rect | null } {
    const { heap } = this;
    const { footage } = layer;
    const shown = part ?? { x: 0, y: 0, ...footage };
    const wall = this.wall(key, footage, shown, picture);
    const region = seenOf(picture, layer, shown);
    if (!region) return { inset: this.take(key, footage, shown, picture, wall), part };
    const [cut, cutWall] = [cropFrame(heap, picture, region), cropFrame(heap, wall, region)];
    const [sx, sy] = [shown.width / picture.width, shown.height / picture.height];
    const cutShown = {
      x: shown.x + region.x * sx,
      y: shown.y + region.y * sy,
      width: region.width * sx,
      height: region.height * sy,
    };
    const inset = this.take(key, footage, cutShown, cut, cutWall);
    for (const frame of [cut, cutWall]) releaseFrame(heap, frame);
    return { inset, part: cutShown };
  }

  /** Takes the wall out of a picture that shows a part of the recording, all of it. */
  private take(
    key: FootageKey,
    footage: Size,
    shown: Rect,
    picture: PlanarFrame,
    wall: ColorPlanes,
  ): Inset {
    const { exports } = this.heap;
    const inset = allocateInset(this.heap, picture.width, picture.height);
    const { y, u, v, alpha, chromaAlpha } = inset;
    const count = u.width * u.height;
    exports.keyAlpha(
      picture.u.at,
      picture.v.at,
      wall.u.at,
      wall.v.at,
      chromaAlpha.at,
      count,
      key.tolerance,
      key.tolerance + key.softness,
      ACROSS,
    );
    this.refine(picture.y, inset);
    this.trim(key, alpha, shown, footage);
    exports.halvePlane(alpha.at, alpha.stride, alpha.width, alpha.height, chromaAlpha.at);
    exports.unmixPlane(picture.y.at, wall.y.at, alpha.at, y.width * y.height, 0, 255, y.at);
    exports.unmixPlane(picture.u.at, wall.u.at, chromaAlpha.at, count, 128, 127, u.at);
    exports.unmixPlane(picture.v.at, wall.v.at, chromaAlpha.at, count, 128, 127, v.at);
    const [, keyU, keyV] = rgbToYuv(parseColor(key.color));
    const length = Math.hypot(keyU - 128, keyV - 128);
    if (length > 1)
      exports.suppressSpill(
        u.at,
        v.at,
        count,
        (keyU - 128) / length,
        (keyV - 128) / length,
        SPILL_ALLOWED,
      );
    return inset;
  }

  /** Opacity at luma's resolution from that at chroma's, with luma's edges. */
  private refine(y: Plane, { alpha, chromaAlpha }: Inset): void {
    const { heap } = this;
    const { width, height } = chromaAlpha;
    using guide = heap.borrow(width * height + 16);
    const floats = (width + 4) * height * 4;
    using slopes = heap.borrow(floats + 64);
    using offsets = heap.borrow(floats + 64);
    using scratch = heap.borrow((width + 16) * 17 + 64);
    using states = heap.borrow(((width + 7) >> 3) * height);
    heap.exports.halvePlane(y.at, y.stride, y.width, y.height, guide.at);
    heap.exports.guideAlpha(
      guide.at,
      chromaAlpha.at,
      width,
      height,
      LUMA_NOISE,
      slopes.at,
      offsets.at,
      states.at,
      scratch.at,
    );
    heap.exports.refineAlpha(
      y.at,
      y.stride,
      y.width,
      y.height,
      slopes.at,
      offsets.at,
      states.at,
      EDGE,
      alpha.at,
    );
  }

  /** Edge and garbage rectangle; lengths of the key are footage pixels. */
  private trim(
    { choke, feather, garbage }: FootageKey,
    alpha: Plane,
    shown: Rect,
    footage: Size,
  ): void {
    const { heap } = this;
    const { width, height } = alpha;
    const scale = width / shown.width;
    using scratch = heap.borrow(Math.max(width * height + 16, blurRoom(width, height)));
    const radius = Math.round(Math.abs(choke) * scale);
    if (radius)
      heap.exports.spreadPlane(alpha.at, width, height, radius, choke < 0 ? 1 : 0, scratch.at);
    const blur = Math.round((feather * scale) / 2);
    if (blur) heap.exports.boxBlurPlane(alpha.at, alpha.stride, width, height, blur, 2, scratch.at);
    if (!garbage) return;
    const clamp = (n: number, most: number) => Math.max(0, Math.min(most, Math.round(n)));
    // What reaches the recording's own border is not cut there.
    const left = garbage.x <= 0 ? 0 : clamp((garbage.x - shown.x) * scale, width);
    const top = garbage.y <= 0 ? 0 : clamp((garbage.y - shown.y) * scale, height);
    const right =
      garbage.x + garbage.width >= footage.width
        ? width
        : clamp((garbage.x + garbage.width - shown.x) * scale, width);
    const bottom =
      garbage.y + garbage.height >= footage.height
        ? height
        : clamp((garbage.y + garbage.height - shown.y) * scale, height);
    const clear = (x: number, y: number, w: number, h: number) => {
      if (w > 0 && h > 0)
        heap.exports.fillPlane(alpha.at + y * alpha.stride + x, alpha.stride, w, h, 0);
    };
    clear(0, 0, width, top);
    clear(0, bottom, width, height - bottom);
    clear(0, top, left, bottom - top);
    clear(right, top, width - right, bottom - top);
  }

  private nameOf(wall: WallMap): number {
    const known = this.names.get(wall);
    if (known) return known;
    // After an edit the preview gets a new document, with the same walls in other objects.
    const name = this.contents.get(JSON.stringify(wall), () => ++this.named);
    this.names.set(wall, name);
    return name;
  }

  /** The empty wall as a picture of the size at hand. */
  private wall(
    { color, wall }: FootageKey,
    footage: Size,
    shown: Rect,
    { width, height }: PlanarFrame,
  ): Inset {
    const name = `${wall ? this.nameOf(wall) : color} ${JSON.stringify([footage, shown])} ${width} ${height}`;
    return this.walls.get(name, () => {
      const { heap } = this;
      const empty = allocateInset(heap, width, height);
      const flat = rgbToYuv(parseColor(color));
      (['y', 'u', 'v'] as const).forEach((name, i) => {
        const plane = empty[name];
        if (wall)
          heap
            .bytes(plane.at, plane.width * plane.height)
            .set(sampleWall(wall, name, footage, shown, plane.width, plane.height));
        else heap.exports.fillPlane(plane.at, plane.stride, plane.width, plane.height, flat[i]!);
      });
      return empty;
    });
  }
}

/**
 * The rectangle of a picture that a layer draws from, on even samples; null when that is nearly
 * all, or sides are odd.
 */
function seenOf({ width, height }: Size, layer: VideoLayer, shown: Rect): Rect | null {
  if (width % 2 || height % 2) return null;
  const room = roomAround(layer);
  const { source } = layer;
  const [sx, sy] = [width / shown.width, height / shown.height];
  const low = (from: number, scale: number) =>
    Math.max(0, Math.floor(((from - room) * scale) / 2) * 2);
  const high = (to: number, scale: number, most: number) =>
    Math.min(most, Math.ceil(((to + room) * scale) / 2) * 2);
  const [x, y] = [low(source.x - shown.x, sx), low(source.y - shown.y, sy)];
  const right = high(source.x + source.width - shown.x, sx, width);
  const bottom = high(source.y + source.height - shown.y, sy, height);
  const area = (right - x) * (bottom - y);
  return right <= x || bottom <= y || area > width * height * NEARLY_ALL
    ? null
    : { x, y, width: right - x, height: bottom - y };
}
