import { readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import type { FootageRow } from '../db/models';
import { footageFolder, originalPath } from '../footage';
import { Problem } from '../problem';

const LARGEST_FILE = 20 << 20;
/** Longest side of the picture that is made: more than any usual project, so that framings stay sharp. */
const SIDE = 3840;

/** Whether a file is a drawing that has to become pixels first. */
export const isDrawing = (file: string): boolean => file.toLowerCase().endsWith('.svg');

/**
 * Makes a PNG of an SVG drawing, on white, beside it. Nothing outside of the file is loaded.
 * @returns path of the PNG
 */
export async function rasteriseDrawing(row: FootageRow): Promise<string> {
  const bytes = await readFile(originalPath(row));
  if (bytes.length > LARGEST_FILE)
    throw new Problem(
      413,
      `${row.name} is larger than 20 MB. Save the drawing as a PNG and bring that.`,
    );
  const unreadable = () =>
    new Problem(
      422,
      `${row.name} is not an SVG drawing that can be read. Save it as a PNG and bring that.`,
    );
  const image = await loadImage(bytes).catch(() => Promise.reject(unreadable()));
  if (!(image.width > 0 && image.height > 0)) throw unreadable();
  const scale = SIDE / Math.max(image.width, image.height);
  const even = (n: number) => Math.max(2, Math.round((n * scale) / 2) * 2);
  const canvas = createCanvas(even(image.width), even(image.height));
  const pen = canvas.getContext('2d');
  pen.fillStyle = '#ffffff';
  pen.fillRect(0, 0, canvas.width, canvas.height);
  pen.drawImage(image, 0, 0, canvas.width, canvas.height);
  const target = join(footageFolder(row.id), 'drawing.png');
  const part = `${target}.part`;
  await writeFile(part, await canvas.encode('png'));
  await rename(part, target);
  return target;
}
