import { readFile, writeFile } from 'node:fs/promises';
import { setPriority } from 'node:os';
import { alignSounds, type Alignment } from '@/core/audio/align';
import type { ReadableSound } from '@/core/audio/comparison';
import { ONSET_RATE, OnsetMeter } from '@/core/audio/onsets';
import { readMono } from '../media/mono-samples';

/** Somebody waits for this: it goes before what looks through recordings, and after the rest. */
const LOW = 5;
/** Reading the sounds takes about so much of the time. */
const READING = 0.5;

/** The recordings to be aligned, and how long they are, in seconds. */
export interface AlignOrder {
  readonly paths: readonly [string, string];
  readonly seconds: readonly [number, number];
  /** The most that reading one may take, in seconds. */
  readonly limit: number;
}

/** Sound that lies in memory as 16 bits: an hour takes 58 MB. */
function readableOf(samples: Int16Array): ReadableSound {
  return {
    length: samples.length,
    read: (from, count) =>
      Float32Array.from({ length: count }, (_, i) => (samples[from + i] ?? 0) / 32768),
  };
}

async function listen(path: string, limit: number, heard: (samples: number) => void) {
  const meter = new OnsetMeter();
  const parts: Int16Array[] = [];
  const take = (samples: Int16Array) => {
    meter.take(Float32Array.from(samples, (sample) => sample / 32768));
    parts.push(samples);
    heard(samples.length);
  };
  await readMono(path, ONSET_RATE, take, { seconds: limit });
  const all = new Int16Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  return { onsets: meter.result(), sound: readableOf(all) };
}

/**
 * Finds how one recording lies against another by what both heard, and writes it, an `Alignment`.
 *
 * @param orderFile holds an `AlignOrder`, as JSON
 * @param onProgress is told the share that is done, 0 to 1
 */
export async function align(
  orderFile: string,
  to: string,
  onProgress: (share: number) => void,
): Promise<Alignment> {
  setPriority(LOW);
  const { paths, seconds, limit } = JSON.parse(await readFile(orderFile, 'utf8')) as AlignOrder;
  const whole = (seconds[0] + seconds[1]) * ONSET_RATE || 1;
  let heard = 0;
  const count = (samples: number) => {
    heard += samples;
    onProgress(READING * Math.min(1, heard / whole));
  };
  const first = await listen(paths[0], limit, count);
  const second = await listen(paths[1], limit, count);
  const found = alignSounds(
    { onsets: [first.onsets, second.onsets], sounds: [first.sound, second.sound] },
    (share) => onProgress(READING + (1 - READING) * share),
  );
  await writeFile(to, JSON.stringify(found));
  return found;
}
