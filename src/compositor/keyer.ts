import type { VideoLayer } from '@/core/frame/plan';
import { parseColor, rgbToYuv } from '@/core/key/color';
import { roomAround } from '@/core/frame/needed';
import type { FootageKey } from '@/core/project/model';
import type { Rect, Size } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import { cropFrame, releaseFrame, type PlanarFrame, type Plane } from '@/kernels/planar';
import { blurBehind } from './behind';
import { allocateInset, releaseInset, type Inset } from './inset';
import { refineOpacity, trimOpacity } from './opacity';
import type { Resampler } from './resampler';
import type { ColorPlanes } from './scaled';
import type { SourceFrame } from './source-frame';
import { Steadier } from './steadier';
import { Walls } from './walls';

/** How much of the wall's hue a pixel may keep, as a share of what it has across it. */
const SPILL_ALLOWED = 0.25;
/** Mixtures with the wall lie within this share of its chroma beside its direction. */
const ACROSS = 0.45;
/** What is behind an outline is taken from so far around, as a share of the recording's height. */
const AROUND = 0.012;

/** How much more luma counts along an outline: decoders give it with less noise than colours. */
const LIGHT = 2;

/** Keying more than this share of a picture takes as long as all of it. */
const NEARLY_ALL = 0.8;

/** A presenter without what is behind them. */
export interface Keyed {
  readonly inset: Inset;
  /** The part of the recording that is shown; null for all of it. */
  readonly part: Rect | null;
  /** What is behind them, blurred, where a layer wants it. */
  readonly behind: Inset | null;
}

/** What is taken out: a picture that shows a part of a recording. */
interface Shown {
  readonly picture: PlanarFrame;
  readonly part: Rect;
}

/** Keys pictures at their own resolution: what comes out is scaled afterwards. */
export class Keyer {
  private readonly walls: Walls;
  private readonly steadier: Steadier;

  constructor(
    private readonly heap: KernelHeap,
    private readonly resampler: Resampler,
  ) {
    this.walls = new Walls(heap);
    this.steadier = new Steadier(heap);
  }

  /**
   * The presenter without what is behind them as far as a layer shows them, their colours
   * multiplied by their opacity. The pictures are to be released by the caller.
   *
   * @param matte the matte at the picture's time, where the layer has one
   */
  key(
    key: FootageKey,
    layer: VideoLayer,
    { picture, part }: SourceFrame,
    matte: SourceFrame | null,
  ): Keyed {
    const { heap } = this;
    const { footage } = layer;
    const shown = part ?? { x: 0, y: 0, ...footage };
    const region = seenOf(picture, layer, shown);
    if (!region) return { ...this.take(key, layer, { picture, part: shown }, matte), part };
    const cut = cropFrame(heap, picture, region);
    const [sx, sy] = [shown.width / picture.width, shown.height / picture.height];
    const cutShown = {
      x: shown.x + region.x * sx,
      y: shown.y + region.y * sy,
      width: region.width * sx,
      height: region.height * sy,
    };
    // The wall was drawn for all of the picture: a part of it is cut out in the same place.
    const of = { picture: cut, part: cutShown, within: { whole: picture, shown, region } };
    const taken = this.take(key, layer, of, matte);
    releaseFrame(heap, cut);
    return { ...taken, part: cutShown };
  }

  private take(
    key: FootageKey,
    layer: VideoLayer,
    of: Shown & { readonly within?: Within },
    matte: SourceFrame | null,
  ): Pick<Keyed, 'inset' | 'behind'> {
    const { heap } = this;
    const { picture, part } = of;
    const { footage, backdrop } = layer;
    const inset = allocateInset(heap, picture.width, picture.height);
    if (matte) this.fromMatte(matte.picture, inset, part, footage);
    else this.fromWall(key, of, footage, inset);
    refineOpacity(heap, picture.y, inset);
    // A matte was steadied when it was made.
    if (!matte && key.steady > 0) this.steady(key, layer, of, inset);
    trimOpacity(heap, key, inset.alpha, part, footage);
    const { alpha, chromaAlpha } = inset;
    heap.exports.halvePlane(alpha.at, alpha.stride, alpha.width, alpha.height, chromaAlpha.at);
    const scale = picture.height / part.height;
    if (matte) {
      const around = blurBehind(heap, picture, inset, AROUND * footage.height * scale);
      this.unmix(picture, around, inset);
      releaseInset(heap, around);
    } else {
      this.withWall(key, of, footage, (wall) => this.unmix(picture, wall, inset));
      this.suppress(key, inset);
    }
    const blurred = typeof backdrop === 'object' && backdrop;
    return {
      inset,
      behind: blurred ? blurBehind(heap, picture, inset, blurred.blur * scale) : null,
    };
  }

  /** Opacity by how far each pixel's colour is from the wall's, or from that of a further sample. */
  private fromWall(
    key: FootageKey,
    of: Shown & { readonly within?: Within },
    footage: Size,
    { chromaAlpha }: Inset,
  ): void {
    const { heap } = this;
    const { picture } = of;
    const count = chromaAlpha.width * chromaAlpha.height;
    const distance = (wall: ColorPlanes, into: number) =>
      heap.exports.keyAlpha(
        ...([picture.u.at, picture.v.at, wall.u.at, wall.v.at, into, count] as const),
        ...([key.tolerance, key.tolerance + key.softness, ACROSS] as const),
      );
    this.withWall(key, of, footage, (wall) => {
      distance(wall, chromaAlpha.at);
      this.solve(of, wall, chromaAlpha);
    });
    if (!key.samples.length) return;
    using other = heap.borrow(count + 64);
    for (const color of key.samples) {
      distance(this.walls.of({ color, wall: null }, footage, of.part, picture), other.at);
      heap.exports.leastPlane(chromaAlpha.at, other.at, count);
    }
  }

  /** Shares along the outline by the colours on both sides of it. */
  private solve({ picture, part }: Shown, wall: ColorPlanes, chromaAlpha: Plane): void {
    const { heap } = this;
    // Where its cells are does not depend on which part of the recording is at hand.
    const cell = (at: number) => Math.round((at * picture.height) / part.height / 2) & 3;
    const { width, height } = chromaAlpha;
    using luma = heap.borrow(width * height + 16);
    using behind = heap.borrow(width * height + 16);
    using scratch = heap.borrow(heap.exports.solveRoom(width, height));
    for (const [{ at, stride, width: w, height: h }, into] of [
      [picture.y, luma.at],
      [wall.y, behind.at],
    ] as const)
      heap.exports.halvePlane(at, stride, w, h, into);
    heap.exports.solveAlpha(
      ...([luma.at, picture.u.at, picture.v.at, behind.at, wall.u.at, wall.v.at] as const),
      ...([chromaAlpha.at, width, height, cell(part.x), cell(part.y)] as const),
      ...([LIGHT, scratch.at] as const),
    );
  }

  /** Opacity from a matte of the recording, at the picture's own place in it. */
  private fromMatte(
    { y, width, height }: PlanarFrame,
    { chromaAlpha }: Inset,
    part: Rect,
    footage: Size,
  ): void {
    const [sx, sy] = [width / footage.width, height / footage.height];
    this.resampler.resample(
      y,
      {
        columns: { origin: part.x * sx, span: part.width * sx },
        rows: { origin: part.y * sy, span: part.height * sy },
        mirror: false,
      },
      chromaAlpha,
    );
  }

  private steady(
    key: FootageKey,
    { clipId, time }: VideoLayer,
    { picture, part }: Shown,
    { alpha }: Inset,
  ): void {
    const { tolerance, softness, color, samples, steady } = key;
    const { width, height } = picture;
    const by = [tolerance, softness, color, samples, steady, part, width, height];
    this.steadier.steady(clipId, JSON.stringify(by), time, picture.y, alpha, steady);
  }

  private unmix(picture: PlanarFrame, behind: ColorPlanes, inset: Inset): void {
    const { exports } = this.heap;
    const { y, u, v, alpha, chromaAlpha } = inset;
    const count = u.width * u.height;
    exports.unmixPlane(picture.y.at, behind.y.at, alpha.at, y.width * y.height, 0, 255, y.at);
    exports.unmixPlane(picture.u.at, behind.u.at, chromaAlpha.at, count, 128, 127, u.at);
    exports.unmixPlane(picture.v.at, behind.v.at, chromaAlpha.at, count, 128, 127, v.at);
  }

  /** Takes the wall's light off the presenter. */
  private suppress({ color, spill }: FootageKey, { u, v }: Inset): void {
    const [, keyU, keyV] = rgbToYuv(parseColor(spill ?? color));
    const length = Math.hypot(keyU - 128, keyV - 128);
    if (length > 1)
      this.heap.exports.suppressSpill(
        ...([u.at, v.at, u.width * u.height] as const),
        ...([(keyU - 128) / length, (keyV - 128) / length, SPILL_ALLOWED] as const),
      );
  }

  /** Does something with the wall behind a picture. */
  private withWall(
    key: FootageKey,
    { picture, part, within }: Shown & { readonly within?: Within },
    footage: Size,
    work: (wall: ColorPlanes) => void,
  ): void {
    if (!within) return work(this.walls.of(key, footage, part, picture));
    const wall = this.walls.of(key, footage, within.shown, within.whole);
    const cut = cropFrame(this.heap, wall, within.region);
    work(cut);
    releaseFrame(this.heap, cut);
  }
}

/** Where a picture was cut out. */
interface Within {
  readonly whole: PlanarFrame;
  readonly shown: Rect;
  readonly region: Rect;
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
