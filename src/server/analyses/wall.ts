import { writeFile } from 'node:fs/promises';
import type { MediaFacts } from '@/contract/footage';
import { estimateWall, type WallEstimate } from '@/core/key/wall';
import { rateFromNumber, ticksToSeconds } from '@/core/time/ticks';
import { frameAtAddress, type Plane } from '@/kernels/planar';
import { frameArguments } from '../media/frame-stream';
import { mediaProblem, runMedia } from '../media/process';
import type { Attempt } from '../jobs/work';
import type { AnalysisKind } from './kind';

/**
 * Pictures that are looked at, spread over the recording: a person who moves uncovers more of the
 * wall.
 */
const LOOKS = 5;

/**
 * Looks for the wall's colour and light in a file; null when its border shows no one strong colour.
 */
export async function wallOf(
  path: string,
  facts: MediaFacts,
  { signal, report }: Partial<Pick<Attempt, 'signal' | 'report'>> = {},
): Promise<WallEstimate | null> {
  const { width, height } = facts;
  const frame = frameAtAddress(0, width, height);
  const pictures = [];
  for (let i = 0; i < LOOKS; i++) {
    signal?.throwIfAborted();
    report?.(i / LOOKS, 'Looking for the background');
    const start = (ticksToSeconds(facts.duration) * (i + 0.5)) / LOOKS;
    const options = { start, rate: facts.frameRate ?? rateFromNumber(30), speed: 0 };
    const bytes = await runMedia('ffmpeg', [
      '-v',
      'error',
      '-nostdin',
      ...frameArguments(path, facts, options, 'rawvideo'),
    ]);
    if (bytes.length < frame.size) continue;
    const part = ({ at, width: w, height: h }: Plane) => bytes.subarray(at, at + w * h);
    pictures.push({ y: part(frame.y), u: part(frame.u), v: part(frame.v), width, height });
  }
  if (!pictures.length) throw mediaProblem('Invalid data found');
  return estimateWall(pictures);
}

/** The evenly coloured background that a presenter stands before, as the chroma key takes it. */
export const wall: AnalysisKind = {
  version: 1,
  needs: 'picture',
  repeatable: true,
  seconds: () => 300,
  async run(_context, { path, facts, target }, attempt) {
    const found = await wallOf(path, facts, attempt);
    await writeFile(target, JSON.stringify(found));
    return {
      summary: { color: found?.color ?? null },
      provenance: 'found',
      confidence: found ? 1 : 0,
      notes: [],
    };
  },
};
