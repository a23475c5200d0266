export { adjustPlane } from './adjust';
export { backPlane, blendPlane, copyRows, fillPlane, layPlane, mixPlane, multiplyPlane } from './blend';
export { dividePlane, leastPlane, steadyAlpha, tintPlane } from './behind';
export { boxBlurPlane, mosaicPlane } from './blur';
export { markChanges, sameRows, takeRows } from './compare';
export { planarToRgba, rgbaToPlanar } from './convert';
export { crispPlane } from './crisp';
export { fillFilter } from './filter';
export { guideAlpha, refineAlpha } from './guide';
export { halvePlane } from './halve';
export { keyAlpha, suppressSpill, unmixPlane } from './key';
export { fadeOutside, spreadPlane } from './matte';
export { multiplyChroma, multiplyLuma } from './multiply';
export { resamplePlane } from './resample';
export { solveAlpha, solveRoom } from './solve';
export { steadyPlane } from './steady';
export { countChanges, matchLook } from './vision';
export { warpPlane } from './warp';

/** First free address; the host lays out everything from here on. */
export function heapBase(): usize {
  return __heap_base;
}
