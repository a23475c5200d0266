import { median } from '../median';
import type { Rect, Size } from '../scale/rect';

/** Where a face is in a recording, in shares of its width and height. */
export interface FaceBox {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** A face must be seen in this share of the pictures. */
const OFTEN = 0.25;

/**
 * The face of a recording's presenter from what was found in several of its pictures: the middle of
 * the largest ones. Null where hardly any has a face.
 *
 * @param found the faces of each picture, in pixels of it
 * @param size of the pictures
 */
export function settleFace(found: readonly (readonly Rect[])[], size: Size): FaceBox | null {
  const largest = found.flatMap((faces) => largestFace(faces, size) ?? []);
  if (!largest.length || largest.length < found.length * OFTEN) return null;
  const middle = (of: (face: FaceBox) => number) => median(largest.map(of));
  const [width, height] = [middle((f) => f.width), middle((f) => f.height)];
  return {
    x: middle((f) => f.x + f.width / 2) - width / 2,
    y: middle((f) => f.y + f.height / 2) - height / 2,
    ...{ width, height },
  };
}

/**
 * The largest of some faces, which is the nearest; null where there is none.
 *
 * @param faces in pixels of a picture
 * @param size of the picture
 */
export function largestFace(faces: readonly Rect[], { width, height }: Size): FaceBox | null {
  if (!faces.length) return null;
  const face = faces.reduce((a, b) => (b.height > a.height ? b : a));
  return {
    ...{ x: face.x / width, y: face.y / height },
    ...{ width: face.width / width, height: face.height / height },
  };
}

/** How high a face, from brows to chin, is in the presenter's shape, as a share of that. */
const FACE_SHARE = 0.36;
/** It stands below the middle, as a share of the shape's height: forehead and hair are above it. */
const BELOW = 0.05;

/**
 * What of a recording the presenter's shape shows, so that a face is in it with some room above:
 * its middle in shares of the recording, and its height as a share of that of the recording.
 */
export function shownFace({ x, y, width, height }: FaceBox): {
  readonly center: { readonly x: number; readonly y: number };
  readonly crop: number;
} {
  const hundredths = (n: number) => Math.round(n * 100) / 100;
  const crop = Math.min(1, Math.max(0.2, hundredths(height / FACE_SHARE)));
  const within = (n: number) => Math.min(1, Math.max(0, hundredths(n)));
  return { center: { x: within(x + width / 2), y: within(y + height / 2 - BELOW * crop) }, crop };
}
