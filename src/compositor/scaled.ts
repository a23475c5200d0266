import type { Rect } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import {
  allocateFrame,
  releaseFrame,
  subPlane,
  type Plane,
  type PlanarFrame,
} from '@/kernels/planar';
import { LruMap } from './lru';
import type { Mapping, Resampler } from './resampler';
import type { SourceFrame } from './source-frame';
import { markedRectangles, planesOf, TILE, tilesOf } from './tiles';

/** Where more than this share of the tiles differs, the whole is scaled again. */
const MUCH = 0.5;

/** Three planes that together are a picture or a part of one. */
export interface ColorPlanes {
  readonly y: Plane;
  readonly u: Plane;
  readonly v: Plane;
}

/** Copies planes to others of the same size. */
export function copyColors({ exports }: KernelHeap, from: ColorPlanes, to: ColorPlanes): void {
  for (const name of ['y', 'u', 'v'] as const)
    exports.copyRows(
      from[name].at,
      from[name].stride,
      to[name].at,
      to[name].stride,
      to[name].width,
      to[name].height,
    );
}

/** How the samples of the luma and of the chroma planes are mapped. */
export interface PictureMapping {
  readonly luma: Mapping;
  readonly chroma: Mapping;
}

interface Kept {
  readonly geometry: string;
  /** The picture that was drawn last. */
  of: SourceFrame;
  /** It, scaled; null as long as the geometry was seen once only. */
  scaled: PlanarFrame | null;
}

/**
 * Draws pictures of recordings that fill a rectangle, and scales only what has changed since the
 * picture before as long as the rectangles stay: most of a screen recording stands still most of
 * the time. The result is the same to the bit.
 */
export class ScaledPictures {
  private readonly kept: LruMap<Kept>;
  private marks: { at: number; size: number } = { at: 0, size: 0 };

  constructor(
    private readonly heap: KernelHeap,
    private readonly resampler: Resampler,
  ) {
    this.kept = new LruMap(4, ({ scaled }) => scaled && releaseFrame(heap, scaled));
  }

  /**
   * Scales a picture into planes.
   *
   * @param name of what is drawn, and of what `finish` does: the same one with the same mapping is
   * taken for the next picture of a sequence
   * @param finish what is done to each rectangle of the scaled picture, sample by sample
   */
  draw(
    name: string,
    source: SourceFrame,
    mapping: PictureMapping,
    into: ColorPlanes,
    finish: (part: ColorPlanes) => void,
  ): void {
    const { picture } = source;
    const { mirror } = mapping.luma;
    if (mirror || this.resampler.copies(picture.y, mapping.luma, into.y))
      return this.whole(picture, mapping, into, finish);
    const geometry = JSON.stringify([
      mapping,
      picture.width,
      picture.height,
      source.part,
      into.y.width,
      into.y.height,
    ]);
    const before = this.kept.find(name);
    if (before?.geometry !== geometry) {
      this.kept.set(name, { geometry, of: source, scaled: null });
      return this.whole(picture, mapping, into, finish);
    }
    if (!before.scaled) {
      before.scaled = allocateFrame(this.heap, into.y.width, into.y.height);
      this.whole(picture, mapping, before.scaled, finish);
    } else if (before.of !== source) this.renew(before.of, source, mapping, before.scaled, finish);
    before.of = source;
    for (const plane of ['y', 'u', 'v'] as const) {
      const { at, stride, width, height } = before.scaled[plane];
      this.heap.exports.copyRows(at, stride, into[plane].at, into[plane].stride, width, height);
    }
  }

  private whole(
    from: ColorPlanes,
    { luma, chroma }: PictureMapping,
    to: ColorPlanes,
    finish: (part: ColorPlanes) => void,
  ): void {
    this.resampler.resample(from.y, luma, to.y);
    this.resampler.resample(from.u, chroma, to.u);
    this.resampler.resample(from.v, chroma, to.v);
    finish(to);
  }

  /** Scales again what differs from the picture that was drawn last. */
  private renew(
    last: SourceFrame,
    source: SourceFrame,
    mapping: PictureMapping,
    to: PlanarFrame,
    finish: (part: ColorPlanes) => void,
  ): void {
    const rectangles = source.before === last ? this.changes(last, source) : null;
    if (!rectangles) return this.whole(source.picture, mapping, to, finish);
    for (const luma of rectangles) {
      const chroma = {
        x: luma.x / 2,
        y: luma.y / 2,
        width: luma.width / 2,
        height: luma.height / 2,
      };
      const part = (plane: Plane, { x, y, width, height }: Rect) =>
        subPlane(plane, x, y, width, height);
      finish({
        y: part(to.y, this.resampler.renew(source.picture.y, mapping.luma, to.y, luma)),
        u: part(to.u, this.resampler.renew(source.picture.u, mapping.chroma, to.u, chroma)),
        v: part(to.v, this.resampler.renew(source.picture.v, mapping.chroma, to.v, chroma)),
      });
    }
  }

  /** Rectangles of luma samples that hold all that differs; null when that is much. */
  private changes(last: SourceFrame, source: SourceFrame): Rect[] | null {
    const { across, down } = tilesOf(source.picture);
    const marks = this.heap.bytes(
      source.marks ?? this.compare(last.picture, source.picture),
      across * down,
    );
    const count = marks.reduce((sum, mark) => sum + mark, 0);
    return count > across * down * MUCH ? null : markedRectangles(marks, across, down);
  }

  /** Marks the tiles that differ. */
  private compare(a: PlanarFrame, b: PlanarFrame): number {
    const { heap } = this;
    const { across, down } = tilesOf(a);
    if (this.marks.size < across * down) {
      if (this.marks.size) heap.release(this.marks.at);
      this.marks = { at: heap.allocate(across * down), size: across * down };
    }
    const { at } = this.marks;
    heap.bytes(at, across * down).fill(0);
    const others = planesOf(b);
    planesOf(a).forEach(([{ at: from, stride, width, height }, by], i) =>
      heap.exports.markChanges(
        from,
        others[i]![0].at,
        stride,
        width,
        height,
        TILE.width / by,
        TILE.height / by,
        at,
      ),
    );
    return at;
  }
}
