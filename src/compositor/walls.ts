import { parseColor, rgbToYuv } from '@/core/key/color';
import { sampleWall } from '@/core/key/wall-map';
import type { FootageKey, WallMap } from '@/core/project/model';
import type { Rect, Size } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import { allocateInset, releaseInset, type Inset } from './inset';
import { LruMap } from './lru';

/** Pictures of empty walls, those that were used of late. */
export class Walls {
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

  /** The empty wall as a picture of a size that shows a part of the recording. */
  of(
    { color, wall }: Pick<FootageKey, 'color' | 'wall'>,
    footage: Size,
    shown: Rect,
    { width, height }: Size,
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

  private nameOf(wall: WallMap): number {
    const known = this.names.get(wall);
    if (known) return known;
    // After an edit the preview gets a new document, with the same walls in other objects.
    const name = this.contents.get(JSON.stringify(wall), () => ++this.named);
    this.names.set(wall, name);
    return name;
  }
}
