import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { PEAKS_PER_SECOND } from '@/core/project/stand-ins';
import { limit } from '../limits';
import { GUARDED_INPUT, runMedia } from '../media/process';
import type { IngestTask } from './steps';

/** Takes 16-bit samples as they come and keeps the highest level of each window. */
class PeakMeter {
  private readonly peaks: number[] = [];
  private count = 0;
  /** The first half of a sample whose second half has not come. */
  private half: number | null = null;

  constructor(private readonly window: number) {}

  take(bytes: Uint8Array): void {
    let at = 0;
    if (this.half !== null && bytes.length) {
      this.sample(this.half | (bytes[0]! << 8));
      this.half = null;
      at = 1;
    }
    for (; at + 1 < bytes.length; at += 2) this.sample(bytes[at]! | (bytes[at + 1]! << 8));
    if (at < bytes.length) this.half = bytes[at]!;
  }

  result(): Uint8Array {
    return Uint8Array.from(this.peaks);
  }

  private sample(bits: number): void {
    const slot = Math.floor(this.count++ / this.window);
    const level = Math.min(255, Math.abs((bits << 16) >> 16) >> 7);
    this.peaks[slot] = Math.max(this.peaks[slot] ?? 0, level);
  }
}

/** Highest level in each fiftieth of a second, one byte each. */
export async function makePeaks(task: IngestTask): Promise<void> {
  const rate = 8000;
  const meter = new PeakMeter(rate / PEAKS_PER_SECOND);
  const resampled = ['-af', `aresample=${rate}:async=1000:first_pts=0`, '-ac', '1'];
  await runMedia(
    'ffmpeg',
    [
      ...['-v', 'error', '-nostdin', ...GUARDED_INPUT, '-i', task.original],
      ...['-map', '0:a:0', '-vn', ...resampled, '-f', 's16le', 'pipe:1'],
    ],
    {
      signal: task.signal,
      seconds: limit('ingestSeconds'),
      onOutput: (data) => meter.take(data),
    },
  );
  await writeFile(join(task.folder, 'peaks.bin'), meter.result());
}
