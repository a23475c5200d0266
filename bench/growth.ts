import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Size } from '@/core/scale/rect';
import { frameDuration } from '@/core/time/ticks';
import type { RenderTask } from '@/server/export/render-frames';
import { timeComposing } from './composing';
import { median, table } from './measure';
import { FULL_HD, LAYERS, movingTask, RATE } from './scenes';

/*
 * How composing grows with the size of the picture and with the number of layers, everything
 * moving; medians, so that the host's moods count less.
 */
const SECONDS = 2;
const SIZES: readonly Size[] = [
  { width: 1280, height: 720 },
  FULL_HD,
  { width: 2560, height: 1440 },
  { width: 3840, height: 2160 },
];

const composing = async (task: RenderTask): Promise<number> =>
  median(
    (
      await timeComposing(
        task,
        Array.from({ length: SECONDS * 30 }, (_, i) => i * frameDuration(RATE)),
      )
    ).compose,
  );

export async function benchGrowth(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'vistum-bench-growth-'));
  try {
    const sizes: (string | number)[][] = [];
    for (const size of SIZES) {
      const ms = await composing(await movingTask(folder, SECONDS, size));
      sizes.push([
        `${size.width}x${size.height}`,
        ms.toFixed(1),
        ((ms * 1e6) / (size.width * size.height)).toFixed(1),
      ]);
    }
    console.log(
      `\n### Composing by size, eight layers, everything moving\n\n${table(['output', 'ms a picture', 'ns a pixel'], sizes)}`,
    );
    const layers: (string | number)[][] = [];
    for (let count = 1; count <= LAYERS.length; count++) {
      const ms = await composing(await movingTask(folder, SECONDS, FULL_HD, count));
      layers.push([count, LAYERS[count - 1]!, ms.toFixed(1)]);
    }
    console.log(
      `\n### Composing by number of layers, 1920x1080\n\n${table(['layers', 'the last of them', 'ms a picture'], layers)}`,
    );
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
