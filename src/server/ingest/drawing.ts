import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Footage } from '../db/rows/footage';
import { Interrupted } from '../processes/interrupted';
import { limit } from '../limits';
import { Problem, problem } from '../problem';
import { runTool } from '../tools/run-tool';

const LARGEST_FILE = 20 << 20;

/** Whether a file is a drawing that has to become pixels first. */
export const isDrawing = (file: string): boolean => file.toLowerCase().endsWith('.svg');

/**
 * Makes a PNG of an SVG drawing, on white. Nothing outside of the file is loaded. The
 * drawing is made in a process of its own, since a short text can describe more strokes than anyone
 * wants to wait for.
 *
 * @param original where the drawing lies
 * @param folder where the PNG is put
 * @returns path of the PNG
 */
export async function rasteriseDrawing(
  row: Pick<Footage, 'name'>,
  original: string,
  folder: string,
  signal: AbortSignal,
): Promise<string> {
  const bytes = await readFile(original);
  if (bytes.length > LARGEST_FILE) throw problem('drawing-too-large', row.name);
  const target = join(folder, 'drawing.png');
  try {
    await runTool(['draw', original, target], {
      signal,
      seconds: limit('drawingSeconds'),
      memory: limit('toolMemory'),
    });
  } catch (error) {
    if (signal.aborted || error instanceof Interrupted) throw error;
    if (error instanceof Problem && error.code !== 'unexpected')
      throw error.code === 'media-too-slow' ? problem('drawing-too-slow', row.name) : error;
    throw problem('drawing-unreadable', row.name);
  }
  return target;
}
