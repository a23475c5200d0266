import type { Size } from '@/core/scale/rect';
import type { PictureStream } from './recording';

/** Pictures that are read at once, in bytes: decoders only go forwards. */
const AT_ONCE = 160 << 20;

/**
 * A recording's pictures backwards, from one on to another: they are read in runs, each from its
 * first to its last picture, and given in the opposite order.
 *
 * @param open the recording from the picture of a number on
 * @param from the first that is given
 * @param end the last that is given
 */
export function reversedPictures(
  open: (index: number) => PictureStream,
  { width, height }: Size,
  from: number,
  end: number,
): PictureStream {
  const most = Math.max(1, Math.floor(AT_ONCE / (width * height)));
  let next = from;
  const run: Uint8Array[] = [];
  const free: Uint8Array[] = [];
  /** The pictures before those of a run, whose decoder starts while the run is looked at. */
  let ahead: PictureStream | null = null;
  const firstOf = (last: number) => Math.max(end, last - most + 1);
  const fill = () => {
    const first = firstOf(next);
    using stream = ahead ?? open(first);
    ahead = null;
    for (let i = first; i <= next; i++) {
      const picture = free.pop() ?? new Uint8Array(width * height);
      if (!stream.read(picture)) break;
      run.push(picture);
    }
    next = first - 1;
    if (next >= end) ahead = open(firstOf(next));
  };
  return {
    read(into) {
      if (!run.length && next >= end) fill();
      const picture = run.pop();
      if (!picture) return false;
      into.set(picture);
      free.push(picture);
      return true;
    },
    [Symbol.dispose]() {
      run.length = free.length = 0;
      ahead?.[Symbol.dispose]();
    },
  };
}
