import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { createCanvas } from '@napi-rs/canvas';
import { ARROW } from '@/core/vision/testing';
import { ffmpeg, scratchFolder } from './media';

export const SIZE = { width: 960, height: 540 };
/** The pointer rests at a place and goes on to the next, over and over, in seconds. */
const ROUND = 1.5;
const MOVING = 0.7;
/** A menu opens below the pointer at this second, while it rests. */
export const OPENS = 5.6;
const SCALE = 2;

/** How far along its way the pointer is. */
const phase = (seconds: number): number =>
  Math.floor(seconds / ROUND) + Math.min(1, (seconds % ROUND) / MOVING);

/** Where the tip of the pointer is at a second of the recording that `makePointed` makes. */
export const pointedAt = (seconds: number) => ({
  x: 440 + 330 * Math.sin(phase(seconds)),
  y: 240 + 190 * Math.cos(1.7 * phase(seconds)),
});

/** What opens then, in pixels. */
export const menuBox = () => {
  const { x, y } = pointedAt(OPENS);
  return { x: Math.round(x - 20), y: Math.round(y + 8), width: 180, height: 90 };
};

/** A page with text, as a picture. */
function page(): Buffer {
  const canvas = createCanvas(SIZE.width, SIZE.height);
  const pen = canvas.getContext('2d');
  pen.fillStyle = '#f6f5f1';
  pen.fillRect(0, 0, SIZE.width, SIZE.height);
  pen.fillStyle = '#26303a';
  pen.font = '17px sans-serif';
  for (let i = 0; i < 12; i++)
    pen.fillText('Shelf, cone and glaze of each firing', 90, 50 + i * 42);
  return canvas.toBuffer('image/png');
}

function pointer(): Buffer {
  const canvas = createCanvas(ARROW[0]!.length * SCALE, ARROW.length * SCALE);
  const pen = canvas.getContext('2d');
  ARROW.forEach((row, y) =>
    [...row].forEach((mark, x) => {
      if (mark === '.') return;
      pen.fillStyle = mark === '#' ? '#101010' : '#ffffff';
      pen.fillRect(x * SCALE, y * SCALE, SCALE, SCALE);
    }),
  );
  return canvas.toBuffer('image/png');
}

/**
 * Makes a recording of a screen whose pointer is part of the picture and has no track; or the same
 * without the pointer.
 */
export function makePointed(path: string, seconds: number, { pointed = true } = {}): void {
  const folder = scratchFolder();
  const [ground, arrow] = [join(folder, 'page.png'), join(folder, 'pointer.png')];
  writeFileSync(ground, page());
  writeFileSync(arrow, pointer());
  const way = `(floor(t/${ROUND})+min(1,mod(t,${ROUND})/${MOVING}))`;
  const { x, y, width, height } = menuBox();
  const box = `drawbox=x=${x}:y=${y}:w=${width}:h=${height}`;
  ffmpeg(
    ...['-loop', '1', '-framerate', '30', '-i', ground, '-i', arrow, '-filter_complex'],
    `[0]${box}:c=0x3a5a7a:t=fill:enable='gte(t,${OPENS})'[g];` +
      (pointed
        ? `[g][1]overlay=x='440+330*sin${way}':y='240+190*cos(1.7*${way})':eval=frame`
        : '[1]nullsink;[g]null'),
    ...['-t', String(seconds), '-c:v', 'libx264', '-preset', 'veryfast', '-crf', '23'],
    ...['-pix_fmt', 'yuv420p', path],
  );
}
