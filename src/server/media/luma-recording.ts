import type { MediaFacts } from '@/contract/footage';
import { framesPerSecond, rateFromNumber, ticksToSeconds } from '@/core/time/ticks';
import { inTiles } from '@/sight/pictures';
import type { LumaRecording } from '@/sight/recording';
import { PictureStream } from './picture-stream';

/** Of recordings that do not tell theirs. */
const USUAL_RATE = rateFromNumber(30);

/** More pictures a second than this tell nothing of a pointer that is not known. */
export const POINTER_PICTURES = 30;

/**
 * A file as a recording whose pictures can be looked at, each of them.
 *
 * @param most so many of a second, where it has more
 */
export function lumaRecording(path: string, facts: MediaFacts, most = Infinity): LumaRecording {
  const own = facts.frameRate ?? USUAL_RATE;
  const rate = framesPerSecond(own) > most ? rateFromNumber(most) : own;
  const luma = inTiles(facts);
  return {
    size: { width: facts.width, height: facts.height },
    ...{ rate, length: ticksToSeconds(facts.duration) * 1000 },
    open: (start) => new PictureStream(path, facts, { start, rate, luma }),
  };
}
