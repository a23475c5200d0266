import type { OutlineMark } from '@/core/frame/mark';
import { evenCeil, evenRound, type Rect, type Size } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import { blurRoom, type Plane } from '@/kernels/planar';
import { LruMap } from './lru';
import { coverOutline, fillColor } from './outline-planes';
import type { Rasterizer } from './rasterizer';
import type { Resampler } from './resampler';
import { allocateSprite, type PlacedSprite, type Sprite } from './sprite';

/** A shadow is worked out so many times smaller: nothing in it is sharp. */
const SCALE = 4;
/** How far a shadow reaches, by how soft it is: three times the deviation that it is blurred by. */
const REACH = 1.5;

/**
 * Draws the shadows that outlines cast straight behind them, but for what is hidden behind what
 * casts them: in motion each picture has another size, and most of a shadow is never seen.
 */
export class Shadows {
  private readonly kept: LruMap<readonly Sprite[]>;

  constructor(
    private readonly heap: KernelHeap,
    private readonly rasterizer: Rasterizer,
    private readonly resampler: Resampler,
  ) {
    this.kept = new LruMap(8, (sprites) => sprites.forEach(({ y }) => heap.release(y.at)));
  }

  /** The shadow of an outline in its place, in as many parts as there are around what is hidden. */
  place(mark: OutlineMark, soft: number): PlacedSprite[] {
    const { box, hidden = null } = mark;
    const edge = evenCeil(soft * REACH);
    const room = {
      ...{ x: evenRound(box.x - edge), y: evenRound(box.y - edge) },
      ...{ width: evenCeil(box.width) + edge * 2, height: evenCeil(box.height) + edge * 2 },
    };
    const parts = hidden ? partsAround(room, hidden) : [room];
    const within = parts.map((part) => ({ ...part, x: part.x - room.x, y: part.y - room.y }));
    const { shape, radius, points, fill } = mark;
    const { width, height } = box;
    const key = JSON.stringify([shape, radius, points, fill, width, height, soft, within]);
    const sprites = this.kept.get(key, () => this.draw(mark, soft, room, within));
    return parts.map(({ x, y }, i) => ({ sprite: sprites[i]!, x, y }));
  }

  /** Blurred as a canvas does: by half of what is asked for, as standard deviation. */
  private draw(
    mark: OutlineMark,
    soft: number,
    room: Size,
    parts: readonly Rect[],
  ): readonly Sprite[] {
    const { heap } = this;
    const even = (n: number) => evenCeil(n / SCALE);
    const small: Size = { width: even(room.width), height: even(room.height) };
    using plane = heap.borrow(small.width * small.height + 16);
    coverOutline(heap, this.rasterizer, mark, plane.at, small, SCALE);
    // Three boxes of a radius r have a standard deviation of the root of r (r + 1).
    const radius = Math.max(1, Math.round(Math.sqrt((soft / 2 / SCALE) ** 2 + 0.25) - 0.5));
    using scratch = heap.borrow(blurRoom(small.width, small.height));
    heap.exports.boxBlurPlane(
      ...([plane.at, small.width, small.width, small.height, radius, 3, scratch.at] as const),
    );
    const blurred = { at: plane.at, stride: small.width, ...small };
    return parts.map((part) => this.part(blurred, mark.fill!, room, part));
  }

  /** A part of a room from its opacity at a smaller size. */
  private part(blurred: Plane, color: string, room: Size, part: Rect): Sprite {
    const { heap } = this;
    const sprite = allocateSprite(heap, part.width, part.height);
    fillColor(heap, sprite, color);
    const range = (of: number, whole: number, from: number, size: number) => ({
      origin: of / 2 - whole / (2 * SCALE) + from / SCALE,
      span: size / SCALE,
    });
    this.resampler.resample(
      blurred,
      {
        columns: range(blurred.width, room.width, part.x, part.width),
        rows: range(blurred.height, room.height, part.y, part.height),
        mirror: false,
      },
      sprite.alpha,
    );
    const { alpha, chromaAlpha, width, height } = sprite;
    heap.exports.halvePlane(alpha.at, width, width, height, chromaAlpha.at);
    return sprite;
  }
}

/** What is left of a rectangle around another, all on even pixels: above, below, and beside it. */
function partsAround(room: Rect, hidden: Rect): Rect[] {
  const [right, bottom] = [room.x + room.width, room.y + room.height];
  const [left, top] = [Math.max(room.x, hidden.x), Math.max(room.y, hidden.y)];
  const [ends, foot] = [
    Math.min(right, hidden.x + hidden.width),
    Math.min(bottom, hidden.y + hidden.height),
  ];
  if (ends <= left || foot <= top) return [room];
  const beside = { y: top, height: foot - top };
  return [
    { x: room.x, y: room.y, width: room.width, height: top - room.y },
    { x: room.x, y: foot, width: room.width, height: bottom - foot },
    { x: room.x, width: left - room.x, ...beside },
    { x: ends, width: right - ends, ...beside },
  ].filter(({ width, height }) => width > 0 && height > 0);
}
