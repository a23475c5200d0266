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

/** One of three planes. */
export type PlaneName = 'y' | 'u' | 'v';

/** How the samples of the luma and of the chroma planes are mapped. */
export interface PictureMapping {
  readonly luma: Mapping;
  readonly chroma: Mapping;
}

/** Luma that stands for a picture's own, and how its samples are mapped. */
export interface OtherLuma {
  readonly plane: Plane;
  readonly mapping: Mapping;
  /** Another one whenever anything in the plane changes. */
  readonly turn: number;
  /** What differs from the turn `since`, in samples of the plane. */
  readonly since: number;
  readonly changes: readonly Rect[];
}

interface Kept {
  readonly geometry: string;
  /** The picture that was drawn last. */
  of: SourceFrame;
  /** The turn of the luma that was drawn in the place of its own. */
  turn: number | null;
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
   * @param finish what is done to each rectangle of a scaled plane, sample by sample
   * @param other luma in the place of the picture's own
   */
  draw(
    name: string,
    source: SourceFrame,
    mapping: PictureMapping,
    into: ColorPlanes,
    finish: Finish,
    other: OtherLuma | null,
  ): void {
    const { picture } = source;
    const planes = planesFrom(picture, mapping, other);
    const { mirror } = mapping.luma;
    if (mirror || this.resampler.copies(planes[0].from, planes[0].mapping, into.y))
      return this.whole(planes, into, finish);
    const geometry = JSON.stringify([
      planes.map(({ mapping: of, from }) => [of, from.width, from.height]),
      source.part,
      into.y.width,
      into.y.height,
    ]);
    const before = this.kept.find(name);
    const turn = other?.turn ?? null;
    if (before?.geometry !== geometry) {
      this.kept.set(name, { geometry, of: source, turn, scaled: null });
      return this.whole(planes, into, finish);
    }
    if (!before.scaled) {
      before.scaled = allocateFrame(this.heap, into.y.width, into.y.height);
      this.whole(planes, before.scaled, finish);
    } else this.renew(before, source, planes, other, before.scaled, finish);
    before.of = source;
    before.turn = turn;
    copyColors(this.heap, before.scaled, into);
  }

  private whole(planes: readonly Scaling[], to: ColorPlanes, finish: Finish): void {
    for (const { name, from, mapping } of planes) {
      this.resampler.resample(from, mapping, to[name]);
      finish(to[name], name);
    }
  }

  /** Scales again what differs from the picture that was drawn last. */
  private renew(
    before: Kept,
    source: SourceFrame,
    planes: readonly Scaling[],
    other: OtherLuma | null,
    to: PlanarFrame,
    finish: Finish,
  ): void {
    const changes =
      before.of === source
        ? []
        : source.before === before.of
          ? this.changes(before.of, source)
          : null;
    for (const plane of planes) {
      const { name, from, mapping } = plane;
      const rectangles =
        name === 'y' && other ? changesSince(before.turn, other) : scaledDown(changes, name);
      if (!rectangles) this.whole([plane], to, finish);
      else
        for (const rectangle of rectangles) {
          const { x, y, width, height } = this.resampler.renew(from, mapping, to[name], rectangle);
          finish(subPlane(to[name], x, y, width, height), name);
        }
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

/** What is done to each rectangle of a scaled plane. */
type Finish = (part: Plane, name: PlaneName) => void;

/** A plane that is scaled, and how. */
interface Scaling {
  readonly name: PlaneName;
  readonly from: Plane;
  readonly mapping: Mapping;
}

/** The planes that a picture is scaled from. */
const planesFrom = (
  { y, u, v }: ColorPlanes,
  { luma, chroma }: PictureMapping,
  other: OtherLuma | null,
): [Scaling, Scaling, Scaling] => [
  { name: 'y', from: other?.plane ?? y, mapping: other?.mapping ?? luma },
  { name: 'u', from: u, mapping: chroma },
  { name: 'v', from: v, mapping: chroma },
];

/** What differs from the luma that was drawn last; null when that is not known. */
const changesSince = (
  drawn: number | null,
  { turn, since, changes }: OtherLuma,
): readonly Rect[] | null => (drawn === turn ? [] : drawn === since ? changes : null);

/** Rectangles of luma as those of a plane. */
const scaledDown = (rectangles: readonly Rect[] | null, name: PlaneName): readonly Rect[] | null =>
  name === 'y' || !rectangles
    ? rectangles
    : rectangles.map(({ x, y, width, height }) => ({
        ...{ x: x / 2, y: y / 2 },
        ...{ width: width / 2, height: height / 2 },
      }));
