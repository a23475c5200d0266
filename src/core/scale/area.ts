import { evenRound, type Rect, type Size } from './rect';

const LEAST_SIDE = 16;

/**
 * A rectangle brought onto whole even pixels and inside a recording: made smaller where it is too
 * large, then moved. Footage pixels; no side is below 16.
 */
export function tidyArea(area: Rect, size: Size): Rect {
  const most = { width: size.width & ~1, height: size.height & ~1 };
  const width = Math.max(LEAST_SIDE, Math.min(evenRound(area.width), most.width));
  const height = Math.max(LEAST_SIDE, Math.min(evenRound(area.height), most.height));
  return {
    x: Math.max(0, Math.min(evenRound(area.x), most.width - width)),
    y: Math.max(0, Math.min(evenRound(area.y), most.height - height)),
    width,
    height,
  };
}
