import type { MediaFacts } from '@/contract/footage';
import { pictureIn, type SmallPicture } from '@/core/matte/picture';
import type { Size } from '@/core/scale/rect';
import { rateFromNumber } from '@/core/time/ticks';
import { PictureStream } from '../media/picture-stream';

/** Shorter stretches are read as a whole; of longer ones single pictures are looked up. */
const SHORT = 90;
/** Pictures that follow closer than so many a second tell the same. */
const MOST_LOOKS = 10;

/**
 * A recording's pictures from beginning to end at a small size, one after the other.
 *
 * @param aSecond how many of each second
 */
export function* everyPicture(
  path: string,
  facts: MediaFacts,
  size: Size,
  aSecond: number,
): Generator<SmallPicture> {
  const rate = rateFromNumber(aSecond);
  using stream = new PictureStream(path, facts, { small: size, start: 0, rate });
  for (;;) {
    const bytes = new Uint8Array(size.width * size.height * 3);
    if (!stream.read(bytes)) return;
    yield pictureIn(bytes, size.width, size.height);
  }
}

/**
 * Some of a recording's pictures at a small size, spread over a stretch of it in seconds.
 *
 * @param most pictures; fewer where they would follow too closely
 */
export function samplePictures(
  path: string,
  facts: MediaFacts,
  size: Size,
  [from, to]: readonly [from: number, to: number],
  most: number,
): SmallPicture[] {
  const options = { small: size, rate: facts.frameRate ?? rateFromNumber(30) };
  const found: SmallPicture[] = [];
  const take = (stream: PictureStream): boolean => {
    const bytes = new Uint8Array(size.width * size.height * 3);
    if (!stream.read(bytes)) return false;
    found.push(pictureIn(bytes, size.width, size.height));
    return true;
  };
  if (to - from <= SHORT) {
    const each = Math.min(MOST_LOOKS, most / Math.max(0.1, to - from));
    const rate = rateFromNumber(each);
    using stream = new PictureStream(path, facts, { ...options, start: from, rate });
    const count = Math.max(1, Math.min(most, Math.floor((to - from) * each)));
    while (found.length < count && take(stream));
    return found;
  }
  for (let i = 0; i < most; i++) {
    const start = from + ((i + 0.5) / most) * (to - from);
    using stream = new PictureStream(path, facts, { ...options, start, speed: 0 });
    take(stream);
  }
  return found;
}
