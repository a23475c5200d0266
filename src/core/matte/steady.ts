import type { SmallPicture } from './picture';

/** A pixel whose colour stays within so many code values shows the same. */
const SAME = 9;
/** The share of what is new where nothing has changed. */
const NEW = 0.3;

/**
 * Takes a matte over into the one of the picture before, by little where the picture has not
 * changed and wholly where it has, so that noise does not make an outline crawl.
 *
 * @param before the picture before and its matte, which is changed; 0 to 1
 */
export function steadyMatte(
  picture: SmallPicture,
  before: SmallPicture,
  matte: Float32Array,
  steadied: Float32Array,
): void {
  const { width, height } = picture;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const left = x > 0 ? i - 1 : i;
      const right = x < width - 1 ? i + 1 : i;
      const change =
        Math.abs(
          picture.y[left]! +
            2 * picture.y[i]! +
            picture.y[right]! -
            (before.y[left]! + 2 * before.y[i]! + before.y[right]!),
        ) /
          4 +
        Math.abs(picture.u[i]! - before.u[i]!) +
        Math.abs(picture.v[i]! - before.v[i]!);
      const moved = Math.min(1, change / SAME);
      const share = NEW + (1 - NEW) * moved * moved;
      steadied[i]! += (matte[i]! - steadied[i]!) * share;
    }
}
