export { resamplePlane } from './resample';
export { keyAlpha, suppressSpill } from './key';
export { blendPlane, fillPlane, lookUpPlane, mixPlane, multiplyPlane } from './blend';
export { boxBlurPlane } from './blur';
export { rgbaToPlanar } from './convert';
export { markChanges } from './compare';

/** First free address; the host lays out everything from here on. */
export function heapBase(): usize {
  return __heap_base;
}
