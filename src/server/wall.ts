import { estimateWall, type WallEstimate } from '@/core/key/wall';
import { frameAtAddress, type Plane } from '@/kernels/planar';
import { rateFromNumber, ticksToSeconds } from '@/core/time/ticks';
import { originalPath } from './footage/paths';
import { findServedFootage, mediaFactsOf } from './footage/view';
import { frameArguments } from './media/frame-stream';
import type { MediaFacts } from './media/probe';
import { mediaProblem, runMedia } from './media/process';

/**
 * Looks for the wall's colour and light in a recording; null when its border shows no one strong
 * colour.
 */
export async function findWall(footageId: string): Promise<WallEstimate | null> {
  const row = await findServedFootage(footageId);
  const facts = mediaFactsOf(row);
  if (!facts?.hasVideo) return null;
  return wallOf(originalPath(row), facts);
}

/**
 * Pictures that are looked at, spread over the recording: a person who moves uncovers more of the
 * wall.
 */
const LOOKS = 5;

/** Looks for the wall's colour and light in a file. */
export async function wallOf(path: string, facts: MediaFacts): Promise<WallEstimate | null> {
  const { width, height } = facts;
  const frame = frameAtAddress(0, width, height);
  const pictures = [];
  for (let i = 0; i < LOOKS; i++) {
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
