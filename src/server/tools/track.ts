import { readFile, writeFile } from 'node:fs/promises';
import { parsePointerTrack, PointerTrackError } from '@/core/telemetry/parse';
import { scaleTrack } from '@/core/telemetry/sample';
import { MOST_SAMPLES, thinTrack } from '@/core/telemetry/thin';
import { problem } from '../problem';

/**
 * Reads a pointer track, mends what can be mended, thins one that is longer than anybody needs, and
 * writes it in the pixels of its recording.
 *
 * @returns what was mended, as sentences, and how many samples there are
 * @throws Problem with a sentence when it is none
 */
export async function track(from: string, to: string, width: number, height: number) {
  const text = await readFile(from, 'utf8');
  let parsed;
  try {
    parsed = parsePointerTrack(text, { width, height });
  } catch (error) {
    if (error instanceof PointerTrackError) throw problem('track-unreadable', error.message);
    throw error;
  }
  const scaled = scaleTrack(parsed.track, width, height);
  const thin = scaled.samples.length > MOST_SAMPLES ? thinTrack(scaled) : scaled;
  await writeFile(to, JSON.stringify(thin));
  return { notes: parsed.notes, samples: thin.samples.length };
}
