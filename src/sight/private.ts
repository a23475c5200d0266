import { PrivateLog, type PrivateFound } from '@/core/private/log';
import { privateTexts, type ReadWord } from '@/core/private/read-text';
import type { Rect } from '@/core/scale/rect';
import { framesPerSecond } from '@/core/time/ticks';
import { LEAST_CHANGE, TILE, tilesOf, type Luma } from '@/core/vision/luma';
import type { KernelHeap } from '@/kernels/heap';
import { inTiles, Pictures } from './pictures';
import type { LumaRecording } from './recording';

/** Reads the words in a picture. */
export type ReadPicture = (picture: Luma) => readonly ReadWord[];

/** A tile in which fewer samples changed shows what it did: codecs alter what stands still. */
const CLEARLY = 8;
/** Where no more than this share of the picture changes, as by a caret, it stands still. */
const STILL = 0.004;
/** Where more of it changes, as by a page that is scrolled, it is another. */
const MUCH = 0.05;
/** Text is there from when so much of it was, from its beginning on. */
const EARLY = 0.25;
/** A picture is read once nothing changed for so many milliseconds, and not before. */
const CALM = 250;
/** What goes on changing is read so often all the same. */
const MOVING = 1500;
/** A little that changed, as by a caret, is not read more often than this. */
const LITTLE = { share: 0.05, ms: 1000 };
/** So many rows above and below what changed are read with it: lines have to be whole. */
const AROUND = 3;

/** A stretch of a picture's rows of tiles, from one up to before another. */
type Band = readonly [from: number, to: number];

/** The rows of tiles in which something is to be read, with what is around. */
export function bandsOf(tiles: Iterable<number>, across: number, down: number): Band[] {
  const rows = new Set<number>();
  for (const tile of tiles) {
    const row = Math.floor(tile / across);
    for (let y = row - AROUND; y <= row + AROUND; y++) if (y >= 0 && y < down) rows.add(y);
  }
  const bands: [number, number][] = [];
  for (const row of [...rows].sort((a, b) => a - b)) {
    const last = bands.at(-1);
    if (last?.[1] === row) last[1] = row + 1;
    else bands.push([row, row + 1]);
  }
  return bands;
}

/**
 * Looks through a recording for private data: what changed is read each time that it stands still,
 * and from time to time while it moves.
 *
 * @param own words of one's own
 * @param onProgress is told the share that is done, 0 to 1
 */
export function findPrivate(
  heap: KernelHeap,
  { size, rate, length, open }: LumaRecording,
  own: readonly string[],
  read: ReadPicture,
  onProgress: (share: number) => void,
): PrivateFound[] {
  const luma = inTiles(size);
  const { across, down } = tilesOf(luma);
  using pictures = new Pictures(heap, luma, 2);
  using stream = open(0);
  const log = new PrivateLog();
  const step = 1000 / framesPerSecond(rate);
  const since = new Float64Array(across * down);
  const unread = new Set<number>(since.keys());
  let [calmSince, waiting, lastRead, ms] = [0, 0, -Infinity, 0];

  const tilesIn = ({ x, y, width, height }: Rect): number[] => {
    const tiles: number[] = [];
    const last = { x: Math.ceil((x + width) / TILE), y: Math.ceil((y + height) / TILE) };
    for (let v = Math.max(0, Math.floor(y / TILE)); v < Math.min(down, last.y); v++)
      for (let u = Math.max(0, Math.floor(x / TILE)); u < Math.min(across, last.x); u++)
        tiles.push(v * across + u);
    return tiles;
  };
  // What is typed is private from its first few letters on; tiles beside letters may be older.
  const sinceOf = ({ y, height, ...rect }: Rect): number => {
    const inner = tilesIn({ ...rect, y: y + height / 4, height: height / 2 });
    const times = inner.map((at) => since[at]!).sort((a, b) => a - b);
    return times[Math.floor(times.length * EARLY)] ?? ms;
  };
  const readNow = (): void => {
    for (const [from, to] of bandsOf(unread, across, down)) {
      const top = from * TILE;
      const whole = pictures.luma(0);
      const height = Math.min(size.height, to * TILE) - top;
      if (height <= 0) continue;
      const part = { ...whole, data: whole.data.subarray(top * whole.stride), height };
      const words = read({ ...part, width: size.width }).map((word) => ({
        ...word,
        rect: { ...word.rect, y: word.rect.y + top },
      }));
      log.read(ms, privateTexts(words, own), sinceOf);
    }
    unread.clear();
    lastRead = ms;
  };

  for (let index = 0; pictures.take((into) => stream.read(into)); index++) {
    ms = index * step;
    const changed = index ? pictures.changedSince(1, LEAST_CHANGE, CLEARLY) : [];
    if (changed.length) {
      if (!unread.size) waiting = ms;
      for (const tile of changed) {
        unread.add(tile);
        since[tile] = ms;
      }
      const moved = new Set(changed);
      log.changed(
        ms,
        (rect) => tilesIn(rect).some((tile) => moved.has(tile)),
        changed.length > MUCH * since.length,
      );
      if (changed.length > STILL * since.length) calmSince = ms;
    }
    const isLittle = unread.size < LITTLE.share * since.length;
    const rests = ms - calmSince >= CALM || ms - waiting >= MOVING || index === 0;
    if (unread.size && rests && (!isLittle || ms - lastRead >= LITTLE.ms)) readNow();
    onProgress(Math.min(1, (ms + step) / Math.max(step, length)));
  }
  if (unread.size && pictures.count) readNow();
  return log.found(ms + step);
}
