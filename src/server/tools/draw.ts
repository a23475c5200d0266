import { readFile, writeFile } from 'node:fs/promises';
import { createCanvas, loadImage } from '@napi-rs/canvas';

/**
 * Longest side of the picture that is made: more than any usual project, so that framings stay
 * sharp.
 */
const SIDE = 3840;

/**
 * Draws an SVG file on white as a PNG file.
 *
 * @throws Error when it is no drawing
 */
export async function draw(from: string, to: string): Promise<null> {
  const image = await loadImage(await readFile(from));
  if (!(image.width > 0 && image.height > 0)) throw new Error('A drawing without a size');
  const scale = SIDE / Math.max(image.width, image.height);
  const even = (n: number) => Math.max(2, Math.round((n * scale) / 2) * 2);
  const canvas = createCanvas(even(image.width), even(image.height));
  const pen = canvas.getContext('2d');
  pen.fillStyle = '#ffffff';
  pen.fillRect(0, 0, canvas.width, canvas.height);
  pen.drawImage(image, 0, 0, canvas.width, canvas.height);
  await writeFile(to, await canvas.encode('png'));
  return null;
}
