import type { MediaFacts } from '@/contract/footage';
import { rateFromNumber, ticksToSeconds } from '@/core/time/ticks';
import { inTiles } from '@/sight/pictures';
import type { LumaRecording } from '@/sight/recording';
import { PictureStream } from './picture-stream';

/** Of recordings that do not tell theirs. */
const USUAL_RATE = rateFromNumber(30);

/** A file as a recording whose pictures can be looked at, each of them. */
export function lumaRecording(path: string, facts: MediaFacts): LumaRecording {
  const rate = facts.frameRate ?? USUAL_RATE;
  const luma = inTiles(facts);
  return {
    size: { width: facts.width, height: facts.height },
    ...{ rate, length: ticksToSeconds(facts.duration) * 1000 },
    open: (start) => new PictureStream(path, facts, { start, rate, luma }),
  };
}
