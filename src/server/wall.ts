import { estimateWall, type WallEstimate } from '@/core/key/wall';
import { frameBytes } from '@/kernels/planar';
import { rateFromNumber, ticksToSeconds } from '@/core/time/ticks';
import { findFootage, originalPath } from './footage';
import { FrameStream } from './media/frame-stream';
import { loadKernels } from './media/node-host';
import type { MediaFacts } from './media/probe';

/** Looks for the wall's colour in the middle of a recording; null when its border shows no one strong colour. */
export async function findWall(footageId: string): Promise<WallEstimate | null> {
  const row = await findFootage(footageId);
  const facts = row.facts ? (JSON.parse(row.facts) as MediaFacts) : null;
  if (!facts?.hasVideo) return null;
  const heap = await loadKernels();
  const stream = new FrameStream(heap, originalPath(row), facts, ticksToSeconds(facts.duration) / 2, facts.frameRate ?? rateFromNumber(30));
  try {
    const frame = await stream.next();
    const bytes = frameBytes(heap, frame);
    const luma = frame.width * frame.height;
    const chroma = frame.u.width * frame.u.height;
    return estimateWall({
      y: bytes.subarray(0, luma),
      u: bytes.subarray(luma, luma + chroma),
      v: bytes.subarray(luma + chroma),
      width: frame.width,
      height: frame.height,
    });
  } finally {
    stream.close();
  }
}
