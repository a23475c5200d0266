import { assertNever } from '@/core/assert-never';
import {
  everyVideoLayer,
  isSolid,
  type DrawingLayer,
  type FramePlan,
  type Layer,
  type MixLayer,
  type Reflection,
  type RegionLayer,
  type TurnedLayer,
  type VideoLayer,
} from '@/core/frame/plan';
import { parseColor, rgbToYuv } from '@/core/key/color';
import type { FootageKey } from '@/core/project/model';
import type { Rect, Size } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import { frameAtAddress, planarSize, type PlanarFrame } from '@/kernels/planar';
import { adjustColors, adjustPlane } from './adjust';
import { Covers } from './covers';
import { CrispText } from './crisp';
import { Dimmer } from './dimmer';
import {
  allocateInset,
  backInset,
  fadeInset,
  fillOpaque,
  layInset,
  maskInset,
  multiplyInset,
  releaseInset,
  showMatte,
  standOn,
  wrapLight,
  type Inset,
} from './inset';
import { Keyer } from './keyer';
import { mappingOf, partOf } from './layer-mapping';
import { MaskShop } from './masks';
import { mirrored } from './mirrored';
import { movePlane } from './move-plane';
import type { Rasterizer } from './rasterizer';
import { Resampler, type AxisRange } from './resampler';
import { ScaledPictures, type ColorPlanes, type OtherLuma, type PictureMapping } from './scaled';
import type { SourceFrame } from './source-frame';
import { blendSprite, fadeSprite, type PlacedSprite } from './sprite';
import { SpriteShop } from './sprites';
import { Turner } from './turner';

/** How far light falls around an outline, as a share of the recording's height. */
const WRAP_REACH = 0.02;

/**
 * Turns a frame plan and the decoded frames it asks for into a picture. The same in a browser
 * worker and in Node.
 */
export class Compositor {
  private readonly resampler: Resampler;
  private readonly scaled: ScaledPictures;
  private readonly sprites: SpriteShop;
  private readonly masks: MaskShop;
  private readonly keyer: Keyer;
  private readonly turner: Turner;
  private readonly covers: Covers;
  private readonly dimmer: Dimmer;
  private readonly crisp: CrispText;

  constructor(
    private readonly heap: KernelHeap,
    rasterizer: Rasterizer,
  ) {
    this.resampler = new Resampler(heap);
    this.scaled = new ScaledPictures(heap, this.resampler);
    this.sprites = new SpriteShop(heap, rasterizer, this.resampler);
    this.masks = new MaskShop(heap, rasterizer);
    this.keyer = new Keyer(heap, this.resampler);
    this.turner = new Turner(heap);
    this.covers = new Covers(heap);
    this.dimmer = new Dimmer(heap, this.masks, this.covers);
    this.crisp = new CrispText(heap);
  }

  /**
   * Draws a plan into `target`, whose size is the plan's; both sides even.
   *
   * @param frameOf the decoded picture for a video layer, of any size with the shape of the part it
   *   shows (a small copy may stand for its original); null leaves the layer out
   * @param effort how much may be spent on magnified text
   */
  compose(
    plan: FramePlan,
    frameOf: FrameOf,
    target: PlanarFrame,
    { budget, inMotion }: Effort = FULL,
  ): void {
    this.crisp.begin(budget, inMotion);
    if (!coversAll(plan)) this.fill(target, plan.background);
    this.draw(plan.layers, plan.size, frameOf, target);
  }

  /** Whether magnified text was left soft in the last picture that more effort would rebuild. */
  get unfinished(): boolean {
    return this.crisp.unfinished;
  }

  /**
   * Rebuilds text that a picture to come will magnify, with what the last picture has left of its
   * budget.
   *
   * @param frameOf the pictures of the recordings as they are now
   */
  prepare(plan: FramePlan, frameOf: FrameOf): void {
    if (!this.crisp.hasTime) return;
    for (const layer of everyVideoLayer(plan.layers)) {
      const source = frameOf(layer);
      if (source) this.rebuilt(layer, source, mappingOf(layer, source.picture, source.part), true);
    }
  }

  private draw(layers: readonly Layer[], size: Size, frameOf: FrameOf, target: PlanarFrame): void {
    for (const layer of layers) {
      switch (layer.kind) {
        case 'mix':
          this.mix(layer, size, frameOf, target);
          break;
        case 'video': {
          const source = frameOf(layer);
          if (source) this.video(layer, source, frameOf, target);
          break;
        }
        case 'turned':
          this.turned(layer, frameOf, target);
          break;
        case 'region':
          this.region(layer, target);
          break;
        case 'drawing': {
          if (layer.opacity <= 0) break;
          for (const placed of this.sprites.place(layer.mark, size))
            this.drawing(layer, placed, target);
          break;
        }
        default:
          assertNever(layer);
      }
    }
  }

  /**
   * Draws the second picture beside the first, each over what is there, and brings them together.
   */
  private mix(
    { from, to, amount, motion }: MixLayer,
    size: Size,
    frameOf: FrameOf,
    target: PlanarFrame,
  ): void {
    const { heap } = this;
    using room = heap.borrow(target.size);
    const second = frameAtAddress(room.at, target.width, target.height);
    heap.exports.copyRows(target.y.at, 0, second.y.at, 0, target.size, 1);
    this.draw(from, size, frameOf, target);
    this.draw(to, size, frameOf, second);
    if (!motion)
      heap.exports.mixPlane(target.y.at, second.y.at, target.size, Math.round(amount * 255));
    else
      for (const [into, plane, by] of [
        [target.y, second.y, 1],
        [target.u, second.u, 2],
        [target.v, second.v, 2],
      ] as const)
        movePlane(heap, into, plane, motion, amount, by);
  }

  /** Draws a picture of its own, and what of it is seen when it is turned. */
  private turned(layer: TurnedLayer, frameOf: FrameOf, target: PlanarFrame): void {
    const { heap } = this;
    const { size, background, layers, turn, about, destination, mask, opacity } = layer;
    using room = heap.borrow(planarSize(size.width, size.height));
    const upright = frameAtAddress(room.at, size.width, size.height);
    this.fill(upright, background);
    this.draw(layers, size, frameOf, upright);
    const from = { x: destination.x - about.x, y: destination.y - about.y };
    const area = partOf(target, destination);
    if (isSolid(layer)) return this.turner.part(upright, turn, from, area);
    const { width, height } = destination;
    const inset = allocateInset(heap, width, height);
    this.turner.part(upright, turn, from, inset);
    fillOpaque(heap, inset);
    if (mask) maskInset(heap, inset, this.masks.of(mask, width, height));
    if (opacity < 1) fadeInset(heap, inset, opacity);
    this.join(layer, inset, area);
    releaseInset(heap, inset);
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

  private video(
    layer: VideoLayer,
    source: SourceFrame,
    frameOf: FrameOf,
    target: PlanarFrame,
  ): void {
    const { destination, adjust, key } = layer;
    // Warmth of the light needs luma and colours at once.
    if (isSolid(layer) && !adjust?.temperature) {
      const area = partOf(target, destination);
      const name = `${layer.clipId} ${destination.x} ${destination.y} ${JSON.stringify(adjust)}`;
      const mapping = mappingOf(layer, source.picture, source.part);
      this.scaled.draw(
        name,
        source,
        mapping,
        area,
        (part, of) => adjust && adjustPlane(this.heap, part, of, null, adjust),
        this.rebuilt(layer, source, mapping),
      );
      return;
    }
    const keyed = key
      ? this.keyed(key, layer, source, layer.matteId ? frameOf(layer, 'matte') : null)
      : null;
    const from: Prepared = keyed ?? { picture: source.picture, opaque: true };
    const mapping = mappingOf(layer, from.picture, keyed ? keyed.part : source.part);
    // What the key left and was laid on a colour is a picture like any other.
    if (keyed?.opaque && isSolid({ ...layer, key: null }))
      this.scaleColor(from.picture, mapping, partOf(target, destination), null);
    else {
      const other = keyed ? null : this.rebuilt(layer, source, mapping);
      this.inlay(layer, this.inset(layer, from, mapping, other, !!keyed), target);
    }
    if (keyed) releaseInset(this.heap, keyed.picture);
  }

  /**
   * The presenter without what is behind them, as large as the recording; opaque when it is on a
   * backdrop or its own matte. Null while there is no matte to take it out by.
   */
  private keyed(
    key: FootageKey,
    layer: VideoLayer,
    source: SourceFrame,
    opacity: SourceFrame | null,
  ): Keyed | null {
    const { heap } = this;
    const { backdrop, matte, adjust } = layer;
    if (layer.matteId && !opacity) return null;
    const { inset, part, behind } = this.keyer.key(key, layer, source, opacity);
    if (matte) showMatte(heap, inset);
    else {
      // By the recording's own height, whatever part of it is at hand and at which size.
      const scale = inset.y.height / (part ?? layer.footage).height;
      if (key.wrap > 0) wrapLight(heap, inset, key.wrap, WRAP_REACH * layer.footage.height * scale);
      if (adjust) adjustColors(heap, inset, inset, adjust);
      if (behind) {
        if (adjust) adjustColors(heap, behind, null, adjust);
        standOn(heap, inset, behind);
        releaseInset(heap, behind);
      } else if (typeof backdrop === 'string') backInset(heap, inset, backdrop);
    }
    return { picture: inset, part, opaque: matte || !!backdrop };
  }

  /** A layer as an inset of its destination's size: masked, and as see-through as it is to be. */
  private inset(
    layer: VideoLayer,
    from: Prepared,
    mapping: PictureMapping,
    other: OtherLuma | null,
    keyed: boolean,
  ): Inset {
    const { heap } = this;
    const { adjust, mask, opacity, destination } = layer;
    const { width, height } = destination;
    const inset = allocateInset(heap, width, height);
    this.scaleColor(from.picture, mapping, inset, other);
    if (from.opaque) fillOpaque(heap, inset);
    else {
      this.resampler.resample(from.picture.alpha, mapping.luma, inset.alpha);
      this.resampler.resample(from.picture.chromaAlpha, mapping.chroma, inset.chromaAlpha);
    }
    if (adjust && !keyed) adjustColors(heap, inset, inset, adjust);
    if (mask) maskInset(heap, inset, this.masks.of(mask, width, height));
    if (opacity < 1) fadeInset(heap, inset, opacity);
    return inset;
  }

  /** Turns an inset where it is to be turned, joins it with the target and gives it back. */
  private inlay(layer: VideoLayer, inset: Inset, target: PlanarFrame): void {
    const { destination, turn, reflection } = layer;
    const turned = turn
      ? this.turner.turn(inset, destination, turn, target)
      : { inset, box: destination };
    if (turned && reflection) this.reflect(layer, turned, reflection, target);
    if (turned) this.join(layer, turned.inset, partOf(target, turned.box));
    if (turned && turned.inset !== inset) releaseInset(this.heap, turned.inset);
    releaseInset(this.heap, inset);
  }

  /** Joins what lies below an inset's ground with the target: the inset upside down, fading. */
  private reflect(
    layer: VideoLayer,
    { inset, box }: { readonly inset: Inset; readonly box: Rect },
    reflection: Reflection,
    target: PlanarFrame,
  ): void {
    const seen = mirrored(this.heap, this.masks, inset, box, reflection);
    if (!seen) return;
    maskInset(this.heap, seen.inset, seen.fade);
    this.join(layer, seen.inset, partOf(target, seen.box));
    releaseInset(this.heap, seen.inset);
  }

  /** Joins an inset with what is in an area of its size. */
  private join({ blend }: Pick<VideoLayer, 'blend'>, inset: Inset, area: ColorPlanes): void {
    if (blend === 'normal') layInset(this.heap, inset, area);
    else multiplyInset(this.heap, inset, area, blend === 'screen');
  }

  private scaleColor(
    from: ColorPlanes,
    { luma, chroma }: PictureMapping,
    to: ColorPlanes,
    other: OtherLuma | null,
  ): void {
    this.resampler.resample(other?.plane ?? from.y, other?.mapping ?? luma, to.y);
    this.resampler.resample(from.u, chroma, to.u);
    this.resampler.resample(from.v, chroma, to.v);
  }

  /** The luma of a recording whose text is to be rebuilt, where it is magnified. */
  private rebuilt(
    { crisp, footageId, footage, destination }: VideoLayer,
    source: SourceFrame,
    { luma }: PictureMapping,
    ahead = false,
  ): OtherLuma | null {
    const { columns, rows } = luma;
    if (!crisp || columns.span >= destination.width || rows.span >= destination.height) return null;
    const wanted = {
      ...{ x: columns.origin, y: rows.origin },
      ...{ width: columns.span, height: rows.span },
    };
    const doubled = this.crisp.double(footageId, source, footage, wanted, ahead);
    const { plane, x, y, turn, since, changes } = doubled;
    const twice = ({ origin, span }: AxisRange, from: number) => ({
      ...{ origin: 2 * (origin + from), span: 2 * span },
    });
    return {
      plane,
      mapping: { ...luma, columns: twice(columns, x), rows: twice(rows, y) },
      ...{ turn, since, changes },
    };
  }

  private region({ area, effect }: RegionLayer, target: PlanarFrame): void {
    const part = partOf(target, area);
    if (effect.kind === 'dim') this.dimmer.draw(area, effect, part);
    else this.covers.draw(area, effect, part);
  }

  /** Blends a sprite, and its reflection if it has one. */
  private drawing(
    { opacity, blend, reflection }: DrawingLayer,
    placed: PlacedSprite,
    target: PlanarFrame,
  ): void {
    const { heap } = this;
    const tint = blend === 'tint';
    if (reflection) {
      const { sprite, x, y } = placed;
      const { width, height } = sprite;
      const seen = mirrored(heap, this.masks, sprite, { x, y, width, height }, reflection);
      if (seen) {
        const { inset, fade, box } = seen;
        const below = { ...inset, width: box.width, height: box.height };
        fadeSprite(heap, below, fade);
        blendSprite(heap, { sprite: below, x: box.x, y: box.y }, target, opacity, tint);
        releaseInset(heap, inset);
      }
    }
    blendSprite(heap, placed, target, opacity, tint);
  }
}

/**
 * A picture that the key has been through, and the part of the recording that it shows; all of it
 * when null.
 */
interface Keyed {
  readonly picture: Inset;
  readonly part: Rect | null;
  readonly opaque: boolean;
}

/** Colours to be scaled; with opacity where they are not opaque throughout. */
type Prepared =
  | { readonly picture: ColorPlanes; readonly opaque: true }
  | { readonly picture: Inset; readonly opaque: boolean };

/** How much may be spent on a picture. */
export interface Effort {
  /** Source samples whose text may be rebuilt for it. */
  readonly budget: number;
  /** Whether it is one of many, in which what moves need not be rebuilt. */
  readonly inMotion: boolean;
}

const FULL: Effort = { budget: Infinity, inMotion: true };

/**
 * The decoded picture for a video layer, or that of its matte, whose luma is opacity; null when
 * there is none.
 */
export type FrameOf = (layer: VideoLayer, what?: 'picture' | 'matte') => SourceFrame | null;

/** Whether the first layer hides the background wholly. */
function coversAll({ layers, size }: FramePlan): boolean {
  const first = layers[0];
  if ((first?.kind !== 'video' && first?.kind !== 'turned') || !isSolid(first)) return false;
  const { x, y, width, height } = first.destination;
  return x <= 0 && y <= 0 && x + width >= size.width && y + height >= size.height;
}
