import { existsSync } from 'node:fs';
import type { ExportSettings } from '@/contract/exports';
import { isSilent, planSound } from '@/core/audio/plan';
import type { Format } from '@/core/project/export-formats';
import type { Range } from '@/core/time/ranges';
import { ticksToSeconds } from '@/core/time/ticks';
import { problem } from '../problem';
import { container, Encoder, segmentContainer, SOUND_INPUT, soundEncoder } from './encode';
import type { RenderTask } from './render-frames';
import type { ExportControl } from './settings';
import { mixSound } from './sound';

/** Bytes of a second of the mix: two channels of 32 bits. */
const SOUND_BYTES = 48000 * 8;

/** Writes the mix alone to a file. */
export async function exportSound(
  task: RenderTask,
  { format }: ExportSettings,
  range: Range,
  target: string,
  control: ExportControl,
): Promise<void> {
  if (isSilent(planSound(task.project, task.sources))) throw problem('no-sound');
  control.onProgress(0, 'Mixing');
  const length = range.end - range.start;
  const encoder = new Encoder(
    [...SOUND_INPUT, ...soundEncoder(format), ...container(format)],
    target,
  );
  await feedSound(encoder, task, range, control.signal, (share) =>
    control.onProgress(
      share * 0.98,
      `${ticksToSeconds(share * length).toFixed(0)} s of ${ticksToSeconds(length).toFixed(0)} s`,
    ),
  );
}

/**
 * Writes the mix of a stretch as an encoded file that is joined with the picture as it is; one that
 * is there already stays. Answers false when the timeline has no sound.
 */
export async function writeSoundPart(
  task: RenderTask,
  format: Format,
  range: Range,
  target: string,
  signal: AbortSignal,
): Promise<boolean> {
  if (isSilent(planSound(task.project, task.sources))) return false;
  if (existsSync(target)) return true;
  const encoder = new Encoder(
    [...SOUND_INPUT, ...soundEncoder(format), '-f', segmentContainer(format)],
    target,
  );
  await feedSound(encoder, task, range, signal);
  return true;
}

/** Mixes into an encoder and completes its file. */
async function feedSound(
  encoder: Encoder,
  task: RenderTask,
  range: Range,
  signal: AbortSignal,
  onShare: (share: number) => void = () => {},
): Promise<void> {
  const all = ticksToSeconds(range.end - range.start) * SOUND_BYTES;
  let written = 0;
  try {
    await mixSound(
      task,
      range,
      (bytes) => {
        written += bytes.length;
        onShare(Math.min(1, written / all));
        return encoder.write(bytes);
      },
      signal,
    );
    await encoder.finish();
  } catch (error) {
    await encoder.kill();
    throw error;
  }
}
