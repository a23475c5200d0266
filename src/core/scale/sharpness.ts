import type { InFootage, Size } from './rect';

/**
 * The view that shows a whole recording, or the whole of an area of it: the smallest rectangle of
 * the frame's shape around it, in footage pixels. It reaches beyond the footage where bars are.
 */
export function wholeView(footage: Size | InFootage, frame: Size): InFootage {
  const { x, y } = 'x' in footage ? footage : { x: 0, y: 0 };
  const width = Math.max(footage.width, (footage.height * frame.width) / frame.height);
  const height = (width * frame.height) / frame.width;
  return {
    x: x + (footage.width - width) / 2,
    y: y + (footage.height - height) / 2,
    width,
    height,
  };
}

/** How much larger a view shows things than the whole view does. */
export const magnification = (view: InFootage, footage: Size | InFootage, frame: Size): number =>
  wholeView(footage, frame).width / view.width;

/** Output pixels for one footage pixel. Above 1 the picture is invented. */
export const viewScale = (view: InFootage, output: Size): number => output.width / view.width;

/**
 * The sharp limit: the largest magnification at which no footage pixel is
 * spread over more than one pixel of the frame. Below 1 when the recording is
 * smaller than the frame, so that even the whole view is soft.
 */
export const sharpLimit = (footage: Size | InFootage, frame: Size): number =>
  wholeView(footage, frame).width / frame.width;

/** Up to so many output pixels for one footage pixel text can be rebuilt. */
export const CRISP_SCALE = 2;

export type Sharpness = 'exact' | 'sharp' | 'crisp' | 'soft';

/**
 * `exact` at 1:1, `sharp` below it (with a hundredth to spare), above it `crisp` as far as text is
 * rebuilt, and else `soft`.
 *
 * @param crisp whether the recording's text is rebuilt
 * @param turn degrees that it is turned: no pixel of it then lies on one of the frame
 */
export function judgeScale(scale: number, crisp: boolean, turn = 0): Sharpness {
  if (!turn && Math.abs(scale - 1) < 0.0005) return 'exact';
  if (scale <= 1.01) return 'sharp';
  return crisp && scale <= CRISP_SCALE * 1.01 ? 'crisp' : 'soft';
}

/**
 * A resting view moved by less than a pixel so that it is free of half-pixel
 * blur: at a scale within half a percent of 1 or 2 the scale becomes exact and
 * the corner falls on an even footage pixel (so that chroma is copied too).
 */
export function snapRestingView(view: InFootage, output: Size): InFootage {
  for (const whole of [1, 2]) {
    if (Math.abs(viewScale(view, output) / whole - 1) > 0.005) continue;
    const width = output.width / whole;
    const height = output.height / whole;
    return {
      x: Math.round((view.x + (view.width - width) / 2) / 2) * 2,
      y: Math.round((view.y + (view.height - height) / 2) / 2) * 2,
      width,
      height,
    };
  }
  return view;
}
