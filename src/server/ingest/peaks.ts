import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { PEAKS_PER_SECOND } from '@/core/project/stand-ins';
import { limit } from '../limits';
import { readMono } from '../media/mono-samples';
import type { IngestTask } from './steps';

const RATE = 8000;
const WINDOW = RATE / PEAKS_PER_SECOND;

/** Highest level in each fiftieth of a second, one byte each. */
export async function makePeaks({ original, folder, signal }: IngestTask): Promise<void> {
  const peaks: number[] = [];
  let count = 0;
  const take = (samples: Int16Array) => {
    for (const sample of samples) {
      const slot = Math.floor(count++ / WINDOW);
      peaks[slot] = Math.max(peaks[slot] ?? 0, Math.min(255, Math.abs(sample) >> 7));
    }
  };
  await readMono(original, RATE, take, { signal, seconds: limit('ingestSeconds') });
  await writeFile(join(folder, 'peaks.bin'), Uint8Array.from(peaks));
}
