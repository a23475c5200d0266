import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { createCanvas, type Canvas, type SKRSContext2D } from '@napi-rs/canvas';
import type { Rect } from '@/core/scale/rect';

/** Where a marked content is in a picture: how far it went, its size; null where it is hidden. */
export interface Truth {
  readonly x: number;
  readonly y: number;
  readonly scale: number;
  /** The share of it that is in sight. */
  readonly seen: number;
}

/** A recording of a page in which something is marked whose way is known. */
export interface MovingPlan {
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly fps: number;
  readonly seconds: number;
  readonly dark?: boolean;
  /** Arguments of the encoder, and what the recording is scaled by before. */
  readonly codec: readonly string[];
  readonly scale?: number;
  /** Draws picture after picture; answers where what is marked is, in pixels drawn. */
  readonly scene: (plan: MovingPlan) => (pen: SKRSContext2D, index: number) => Truth;
}

/** A generator of Park and Miller's, 0 to 1. */
export function chance(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
}

const WORDS = 'roof ledger kiln amber slate order glaze batch clay shelf fire cone tile'.split(' ');
const NAMES = 'ada mira jonas pell tovan lise orrin wenna sidel bram'.split(' ');

/** How rows of a page are set. */
export const ROW = 44;
/** What is marked: the address in this row, from here on. */
export const MARKED = { row: 12, x: 620, width: 300 } as const;

/** An address that nobody has. */
const addressOf = (row: number, random: () => number): string => {
  const name = NAMES[Math.floor(random() * NAMES.length)]!;
  return `${name}.${WORDS[(row * 5) % WORDS.length]!}${10 + ((row * 37) % 89)}@kilnbook.example`;
};

/** What is marked, as it is written there. */
export function markedText(): string {
  const names = chance(71);
  for (let row = 0; row < MARKED.row; row++) addressOf(row, names);
  return addressOf(MARKED.row, names);
}

/** A table of orders: rows alike but for their words. */
export function drawTable(width: number, rows: number, dark = false, zoom = 1): Canvas {
  const page = createCanvas(Math.round(width * zoom), Math.round(rows * ROW * zoom));
  const pen = page.getContext('2d');
  pen.scale(zoom, zoom);
  pen.fillStyle = dark ? '#1d2024' : '#fbfaf7';
  pen.fillRect(0, 0, width, rows * ROW);
  const [words, names] = [chance(17), chance(71)];
  pen.font = '18px sans-serif';
  pen.textBaseline = 'middle';
  for (let row = 0; row < rows; row++) {
    const y = row * ROW;
    pen.fillStyle = dark ? '#2c3036' : '#e4e0d8';
    pen.fillRect(60, y + ROW - 1, width - 120, 1);
    pen.fillStyle = dark ? '#c9ced6' : '#26241f';
    pen.fillText(`${1000 + row * 3}`, 80, y + ROW / 2);
    const said = Array.from({ length: 3 }, () => WORDS[Math.floor(words() * WORDS.length)]!);
    pen.fillText(said.join(' '), 220, y + ROW / 2);
    pen.fillText(addressOf(row, names), MARKED.x, y + ROW / 2);
    pen.fillText('paid', 1100, y + ROW / 2);
    if (width > 1300)
      pen.fillText(`${(row * 773) % 900},${10 + ((row * 7) % 89)}`, 1300, y + ROW / 2);
  }
  return page;
}

/** What is marked, in pixels of the table. */
export const markedRect = (): Rect => ({
  x: MARKED.x - 6,
  y: MARKED.row * ROW + 8,
  width: MARKED.width,
  height: ROW - 16,
});

/** Makes a recording; answers where what is marked is, picture by picture, in its pixels. */
export async function makeMoving(plan: MovingPlan, file: string): Promise<Truth[]> {
  const { width, height, fps, seconds, codec, scale = 1 } = plan;
  const canvas = createCanvas(width, height);
  const pen = canvas.getContext('2d');
  const raw = ['-f', 'rawvideo', '-pix_fmt', 'rgba', '-s', `${width}x${height}`, '-r', `${fps}`];
  const size = `scale=${Math.round(width * scale)}:${Math.round(height * scale)}:flags=bicubic`;
  const encoder = spawn(
    'ffmpeg',
    [
      ...['-v', 'error', '-nostdin', '-y', ...raw, '-i', '-', '-vf', size],
      ...['-pix_fmt', 'yuv420p', ...codec, file],
    ],
    { stdio: ['pipe', 'inherit', 'inherit'] },
  );
  const ended = once(encoder, 'close');
  const draw = plan.scene(plan);
  const truth: Truth[] = [];
  for (let i = 0; i < fps * seconds; i++) {
    const { x, y, scale: own, seen } = draw(pen, i);
    truth.push({ x: x * scale, y: y * scale, scale: own, seen });
    const { data } = pen.getImageData(0, 0, width, height);
    if (!encoder.stdin.write(Buffer.from(data))) await once(encoder.stdin, 'drain');
  }
  encoder.stdin.end();
  await ended;
  return truth;
}
