import { assertNever } from '@/core/assert-never';
import type {
  DiscMark,
  KeysMark,
  LinesMark,
  Mark,
  OutlineMark,
  PictureMark,
  PointerMark,
  WordsMark,
} from '@/core/frame/mark';
import { parseColor } from '@/core/key/color';
import { discProfile } from '@/core/pointer/disc';
import {
  cornersOf,
  evenCeil,
  evenFloor,
  evenRound,
  intersect,
  meet,
  padded,
  rectAround,
  turnedAbout,
  type Rect,
  type Size,
} from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import { LruMap } from './lru';
import type { Pen, Rasterizer } from './rasterizer';
import { traceOutline } from './outline-path';
import { drawOutline, isPlain } from './outline-planes';
import type { Resampler } from './resampler';
import { Shadows } from './shadows';
import { allocateSprite, type PlacedSprite, type Sprite } from './sprite';
import { layOutKeys, paintKeys, type KeyCaps } from './keycaps';
import { paintPointer, POINTER_BOX } from './pointer-shape';
import { layOutText, paintText } from './text-box';

/**
 * Sprites in motion are drawn at steps of this many pixels, so that a few drawings serve for all
 * places.
 */
const STEP = 0.5;
const toStep = (n: number) => Math.round(n / STEP) * STEP;

/** All sprites together; one of the whole picture is 2 million pixels at 1080p. */
const MOST_PIXELS = 24e6;

/** Makes overlays into sprites and keeps those used of late. */
export class SpriteShop {
  private readonly sprites: LruMap<Sprite>;
  private readonly shadows: Shadows;

  constructor(
    private readonly heap: KernelHeap,
    private readonly rasterizer: Rasterizer,
    resampler: Resampler,
  ) {
    this.shadows = new Shadows(heap, rasterizer, resampler);
    this.sprites = new LruMap(80, (sprite) => heap.release(sprite.y.at), {
      most: MOST_PIXELS,
      of: ({ width, height }) => width * height,
    });
  }

  /**
   * A mark as a sprite in its place; of a shadow as several around what is hidden of it. None for
   * one that lies outside of the output.
   */
  place(mark: Mark, output: Size): readonly PlacedSprite[] {
    if (mark.kind === 'outline' && mark.soft) return this.shadows.place(mark, mark.soft);
    const placed = this.single(mark, output);
    return placed ? [placed] : [];
  }

  private single(mark: Mark, output: Size): PlacedSprite | null {
    switch (mark.kind) {
      case 'disc':
        return this.disc(mark);
      case 'pointer':
        return this.pointer(mark);
      case 'lines':
        return this.lines(mark, output);
      case 'outline':
        return this.outline(mark, output);
      case 'words':
        return this.words(mark, output);
      case 'keys':
        return this.keys(mark, output);
      case 'picture':
        return this.still(mark, output);
      default:
        return assertNever(mark);
    }
  }

  /** A soft disc. */
  private disc(mark: DiscMark): PlacedSprite {
    const side = Math.max(4, evenCeil(mark.diameter));
    const sprite = this.sprites.get(`disc ${side} ${mark.color} ${mark.softness}`, () => {
      return this.store(discPixels(side, mark), side, side);
    });
    return {
      sprite,
      x: evenFloor(mark.center.x - side / 2 + 1),
      y: evenFloor(mark.center.y - side / 2 + 1),
    };
  }

  /** The pointer; its tip may stand on half pixels. */
  private pointer(mark: PointerMark): PlacedSprite {
    const height = toStep(mark.height);
    const margin = Math.ceil(height * POINTER_BOX.margin);
    const side = evenCeil(height * POINTER_BOX.side + margin * 2);
    const x = evenFloor(mark.tip.x - margin - height * POINTER_BOX.left);
    const y = evenFloor(mark.tip.y - margin - height * POINTER_BOX.top);
    const tip = { x: toStep(mark.tip.x - x), y: toStep(mark.tip.y - y) };
    const key = `pointer ${mark.shape} ${height} ${tip.x} ${tip.y}`;
    return {
      sprite: this.sprites.get(key, () =>
        this.draw(side, side, (pen) => paintPointer(pen, mark.shape, tip, height)),
      ),
      x,
      y,
    };
  }

  /** Lines, as one sprite that lies within the output. */
  private lines(mark: LinesMark, output: Size): PlacedSprite | null {
    const points = mark.paths.flat();
    const room = mark.width / 2 + 2;
    const x = evenFloor(Math.max(0, Math.min(...points.map((p) => p.x)) - room));
    const y = evenFloor(Math.max(0, Math.min(...points.map((p) => p.y)) - room));
    const width = evenCeil(Math.min(output.width, Math.max(...points.map((p) => p.x)) + room) - x);
    const height = evenCeil(
      Math.min(output.height, Math.max(...points.map((p) => p.y)) + room) - y,
    );
    if (width < 2 || height < 2) return null;
    const paths = mark.paths.map((path) =>
      path.map((p) => [toStep(p.x - x), toStep(p.y - y)] as const),
    );
    const sprite = this.sprites.get(
      `lines ${JSON.stringify([width, height, mark.closed, mark.width, mark.color, paths])}`,
      () =>
        this.draw(width, height, (pen) => {
          pen.strokeStyle = mark.color;
          pen.lineWidth = mark.width;
          pen.lineCap = 'round';
          pen.lineJoin = 'round';
          for (const path of paths) {
            pen.beginPath();
            path.forEach(([px, py], i) => (i ? pen.lineTo(px, py) : pen.moveTo(px, py)));
            // A tap of the pen is a dot.
            if (path.length === 1) pen.lineTo(path[0]![0] + 0.01, path[0]![1]);
            if (mark.closed) pen.closePath();
            pen.stroke();
          }
        }),
    );
    return { sprite, x, y };
  }

  /**
   * A filled or stroked ellipse or rectangle; its corner is brought to whole pixels. Of a very large
   * one the part within the output.
   */
  private outline(mark: OutlineMark, output: Size): PlacedSprite | null {
    const { box, stroke, fill, fillTo = null } = mark;
    const edge = evenCeil(stroke ? stroke.width : 0);
    const width = evenCeil(box.width) + edge * 2;
    const height = evenCeil(box.height) + edge * 2;
    const room = { x: evenRound(box.x - edge), y: evenRound(box.y - edge), width, height };
    const seen = isHuge(room, output) ? partWithin(room, output) : room;
    if (seen.width < 2 || seen.height < 2) return null;
    const [left, top] = [room.x + edge - seen.x, room.y + edge - seen.y];
    const cut = seen === room ? '' : JSON.stringify([left, top, seen]);
    const key = `${cut} outline ${mark.shape} ${mark.radius} ${box.width} ${box.height} ${fill} ${fillTo} ${stroke?.width} ${stroke?.color} ${stroke?.second} ${pathKey(mark)}`;
    const sprite = this.sprites.get(key, () => {
      if (isPlain(mark) && !cut) {
        const plain = allocateSprite(this.heap, width, height);
        drawOutline(this.heap, this.rasterizer, mark, plain);
        return plain;
      }
      return this.draw(seen.width, seen.height, (pen) => {
        traceOutline(pen, mark, left, top);
        if (fill) {
          pen.fillStyle = fill;
          pen.fill();
        }
        if (stroke) {
          pen.strokeStyle = stroke.color;
          pen.lineWidth = stroke.width;
          pen.stroke();
        }
      });
    });
    return { sprite, x: seen.x, y: seen.y };
  }

  /** Words in a box with an arrow or a tail; of very large ones the part within the output. */
  private words(mark: WordsMark, output: Size): PlacedSprite | null {
    const box = layOutText(mark, output, this.rasterizer);
    const { tip, turn, lettering } = mark;
    const room = roomFor(
      [...cornersOf(box).map((corner) => turnedAbout(corner, tip, turn)), tip],
      mark.fontSize + (lettering.outline?.width ?? 0),
    );
    const { x, y, width, height } = isHuge(room, output) ? partWithin(room, output) : room;
    if (width < 2 || height < 2) return null;
    const shape = [box.x - x, box.y - y, tip.x - x, tip.y - y].map(toStep);
    const whole = { ...mark, tip: null, offset: null };
    const key = `words ${JSON.stringify([whole, shape, width, height])}`;
    const sprite = this.sprites.get(key, () =>
      this.draw(width, height, (pen) => {
        const [bx, by, tx, ty] = shape as [number, number, number, number];
        const at = { x: tx, y: ty };
        turning(pen, at, turn, () =>
          paintText(pen, { ...mark, tip: at }, { ...box, x: bx, y: by }),
        );
      }),
    );
    return { sprite, x, y };
  }

  /** Keycaps, kept within the output. */
  private keys(mark: KeysMark, output: Size): PlacedSprite {
    const set = layOutKeys(mark, output.width * 0.96, this.rasterizer);
    const width = evenCeil(set.width);
    const height = evenCeil(set.height);
    const key = `keys ${JSON.stringify([mark.caps, set.fontSize, mark.fill, mark.ink])}`;
    const left = { left: 0, middle: width / 2, right: width }[mark.align];
    const up = mark.from === 'top' ? 0 : height;
    if (mark.turn) return this.turnedKeys(mark, set, { x: left, y: up }, key);
    const x = Math.max(0, Math.min(output.width - width, mark.at.x - left));
    return {
      sprite: this.sprites.get(key, () =>
        this.draw(width, height, (pen) => paintKeys(pen, mark, set)),
      ),
      x: evenFloor(x),
      y: evenFloor(mark.at.y - up),
    };
  }

  /** Keycaps that are turned about a point of them. */
  private turnedKeys(
    { at, turn, ...mark }: KeysMark,
    set: KeyCaps,
    about: { readonly x: number; readonly y: number },
    key: string,
  ): PlacedSprite {
    const upright = { x: at.x - about.x, y: at.y - about.y, ...{ width: set.width } };
    const corners = cornersOf({ ...upright, height: set.height });
    const room = corners.map((corner) => turnedAbout(corner, at, turn));
    const { x, y, width, height } = roomFor(room, 2);
    const tip = { x: toStep(at.x - x), y: toStep(at.y - y) };
    const sprite = this.sprites.get(`${key} ${turn} ${tip.x} ${tip.y}`, () =>
      this.draw(width, height, (pen) =>
        turning(pen, tip, turn, () => {
          pen.translate(tip.x - about.x, tip.y - about.y);
          paintKeys(pen, { ...mark, at, turn }, set);
        }),
      ),
    );
    return { sprite, x, y };
  }

  /** A still of the footage, scaled; null where the host has it not, or it lies outside. */
  private still({ footageId, box, corner, turn }: PictureMark, output: Size): PlacedSprite | null {
    const found = this.rasterizer.still(footageId);
    if (!found) return null;
    // At rest its edges, and at its own size its pixels, are on whole ones.
    const size = { width: Math.round(box.width), height: Math.round(box.height) };
    const at = { x: Math.round(box.x), y: Math.round(box.y) };
    const middle = { x: at.x + size.width / 2, y: at.y + size.height / 2 };
    const room = roomFor(
      cornersOf({ ...at, ...size }).map((corner) => turnedAbout(corner, middle, turn)),
      turn ? 2 : 0,
    );
    if (!meet(room, { x: 0, y: 0, ...output })) return null;
    const { x, y, width, height } = isHuge(room, output) ? partWithin(room, output) : room;
    const [left, top] = [at.x - x, at.y - y];
    const key = `still ${JSON.stringify([footageId, size, left, top, width, height, corner, turn])}`;
    const sprite = this.sprites.get(key, () =>
      this.draw(width, height, (pen) =>
        turning(pen, { x: middle.x - x, y: middle.y - y }, turn, () => {
          pen.imageSmoothingQuality = 'high';
          pen.save();
          if (corner > 0) {
            pen.beginPath();
            pen.roundRect(left, top, size.width, size.height, corner);
            pen.clip();
          }
          pen.drawImage(found.image, left, top, size.width, size.height);
          pen.restore();
        }),
      ),
    );
    return { sprite, x, y };
  }

  private draw(width: number, height: number, paint: Parameters<Rasterizer['draw']>[2]): Sprite {
    return this.store(this.rasterizer.draw(width, height, paint), width, height);
  }

  private store(rgba: Uint8ClampedArray, width: number, height: number): Sprite {
    const sprite = allocateSprite(this.heap, width, height);
    using source = this.heap.lend(rgba);
    this.heap.exports.rgbaToPlanar(
      source.at,
      width,
      height,
      sprite.y.at,
      sprite.u.at,
      sprite.v.at,
      sprite.alpha.at,
      sprite.chromaAlpha.at,
    );
    return sprite;
  }
}

/** The even rectangle around points with so much room about them. */
function roomFor(
  points: readonly { readonly x: number; readonly y: number }[],
  room: number,
): Rect {
  const around = padded(rectAround(points), room);
  const [x, y] = [evenFloor(around.x), evenFloor(around.y)];
  return {
    ...{ x, y },
    width: evenCeil(around.x + around.width - x),
    height: evenCeil(around.y + around.height - y),
  };
}

/** Whether so much of something lies outside of the output that it is not drawn whole. */
const isHuge = (room: Size, output: Size): boolean =>
  room.width > output.width * 3 || room.height > output.height * 3;

/** The even part of a rectangle that lies within the output. */
function partWithin(room: Rect, output: Size): Rect {
  const seen = intersect(room, { x: 0, y: 0, ...output });
  const [x, y] = [evenFloor(seen.x), evenFloor(seen.y)];
  return {
    ...{ x, y },
    width: evenCeil(seen.x + seen.width - x),
    height: evenCeil(seen.y + seen.height - y),
  };
}

/** Draws turned about a point, and leaves the pen as it was. */
function turning(
  pen: Pen,
  { x, y }: { readonly x: number; readonly y: number },
  degrees: number,
  paint: () => void,
): void {
  if (!degrees) return paint();
  pen.save();
  pen.translate(x, y);
  pen.rotate((degrees * Math.PI) / 180);
  pen.translate(-x, -y);
  paint();
  pen.restore();
}

/** Steps of a disc's profile from its middle to its edge. */
const PROFILE = 1024;

/**
 * A soft disc in RGBA. Its profile is tabled over the squared distance: while a view moves, discs
 * of many sizes are asked for.
 */
function discPixels(side: number, { color, softness }: DiscMark): Uint8ClampedArray {
  const [r, g, b] = parseColor(color);
  const profile = Uint8Array.from({ length: PROFILE + 1 }, (_, i) =>
    Math.round(255 * discProfile(Math.sqrt(i / PROFILE), softness)),
  );
  const words = new Uint32Array(side * side);
  const tint = (b << 16) | (g << 8) | r;
  const scale = PROFILE / (side / 2) ** 2;
  for (let y = 0; y < side; y++) {
    const dy = (y + 0.5 - side / 2) ** 2;
    for (let x = 0; x < side; x++) {
      const i = Math.round(((x + 0.5 - side / 2) ** 2 + dy) * scale);
      if (i <= PROFILE) words[y * side + x] = ((profile[i]! << 24) | tint) >>> 0;
    }
  }
  return new Uint8ClampedArray(words.buffer);
}

/** What tells a path from others in the list of sprites that are kept. */
const pathKey = ({ points = [] }: OutlineMark): string =>
  points.map(({ x, y }) => `${x.toFixed(2)},${y.toFixed(2)}`).join(' ');
