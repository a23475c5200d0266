import type { CoverFinding } from '@/contract/exports';
import { remedyFor } from '@/core/proof/remedy';
import { frameDuration, ticksToSeconds, type FrameRate } from '@/core/time/ticks';
import type { CoverProof } from './proof-covers';

/** What was found under the covers of an export, as it is told: in seconds of the timeline. */
export function findingsOf(
  { leaks, project, origin }: CoverProof,
  rate: FrameRate,
): CoverFinding[] {
  const frame = frameDuration(rate);
  const at = (n: number) => ticksToSeconds(origin + n * frame);
  return leaks.map((leak) => ({
    ...{ cover: leak.coverId, frames: leak.frames, worst: leak.worst.frame },
    ...{ start: at(leak.from), end: at(leak.to + 1) },
    remedy: remedyFor(project, leak, origin, frame),
  }));
}
