import type { Size } from './rect';

const evenUp = (n: number) => Math.ceil(n / 2 - 1e-9) * 2;
const evenDown = (n: number) => Math.floor(n / 2 + 1e-9) * 2;

/**
 * The smallest recording, in pixels, that stays sharp in a frame even at the closest view that is
 * planned: the frame's size times the magnification, on whole even pixels.
 *
 * @param closest largest magnification, 1 or more
 */
export const captureSize = (frame: Size, closest: number): Size => ({
  width: evenUp(frame.width * Math.max(1, closest)),
  height: evenUp(frame.height * Math.max(1, closest)),
});

/**
 * Bars beside or above and below a source that is fitted into a frame whole. Frame pixels, each of
 * the two.
 */
export interface Bars {
  readonly side: number;
  readonly above: number;
  /** Share of the frame that the bars take, 0 to 1. */
  readonly share: number;
  /** Share of the source that is lost when it fills the frame instead, 0 to 1. */
  readonly lost: number;
}

/** Bars and loss of a source of another shape; all zero where the shapes agree to a pixel. */
export function barsOf(source: Size, frame: Size): Bars {
  const scale = Math.min(frame.width / source.width, frame.height / source.height);
  const side = Math.round((frame.width - source.width * scale) / 2);
  const above = Math.round((frame.height - source.height * scale) / 2);
  const fill = Math.max(frame.width / source.width, frame.height / source.height);
  const seen = (frame.width / fill / source.width) * (frame.height / fill / source.height);
  if (!side && !above) return { side: 0, above: 0, share: 0, lost: 0 };
  return {
    side,
    above,
    share: (2 * (side * frame.height + above * frame.width)) / (frame.width * frame.height),
    lost: 1 - seen,
  };
}

/** The largest part of a source, on even pixels in its middle, that has the frame's shape. */
export function areaOfShape(
  source: Size,
  frame: Size,
): { x: number; y: number; width: number; height: number } {
  const width = evenDown(Math.min(source.width, (source.height * frame.width) / frame.height));
  const height = evenDown(Math.min(source.height, (source.width * frame.height) / frame.width));
  return {
    x: evenDown((source.width - width) / 2),
    y: evenDown((source.height - height) / 2),
    width,
    height,
  };
}

/** Sizes that cameras commonly offer. */
export const CAMERA_SIZES: readonly Size[] = [
  { width: 640, height: 480 },
  { width: 1280, height: 720 },
  { width: 1280, height: 960 },
  { width: 1920, height: 1080 },
  { width: 2560, height: 1440 },
  { width: 3840, height: 2160 },
];

/** Sizes of screens that recordings commonly have. */
export const SCREEN_SIZES: readonly (Size & { readonly name: string })[] = [
  { name: '4:3', width: 1600, height: 1200 },
  { name: '16:10', width: 1920, height: 1200 },
  { name: '16:9', width: 1920, height: 1080 },
  { name: '16:9, large', width: 2560, height: 1440 },
  { name: '16:9, double', width: 3840, height: 2160 },
  { name: 'ultra-wide', width: 3440, height: 1440 },
];

export interface CameraAdvice extends Size {
  readonly bars: Bars;
  /** Enough pixels to fill the frame without enlarging. */
  readonly fills: boolean;
}

/** How each camera size does as a full picture: without bars and large enough is best. */
export const cameraAdvice = (frame: Size): CameraAdvice[] =>
  CAMERA_SIZES.map((size) => ({
    ...size,
    bars: barsOf(size, frame),
    fills: size.width >= frame.width && size.height >= frame.height,
  }));

/**
 * The camera size to choose: the smallest that fills the frame without bars, else the largest
 * without bars, else none.
 */
export function bestCamera(frame: Size): CameraAdvice | null {
  const without = cameraAdvice(frame).filter((c) => c.bars.share === 0);
  return without.find((c) => c.fills) ?? without.at(-1) ?? null;
}
