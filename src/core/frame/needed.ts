import type { Rect, Size } from '../scale/rect';
import { everyVideoLayer, type FramePlan, type VideoLayer } from './plan';

/** Filters reach six source pixels beyond an edge in chroma for each pixel they shrink to one. */
const REACH = 8;
/**
 * The key looks so far for the presenter's own colours beside an outline and for the edges that luma
 * shows, in pixels of a picture which may be a third of the recording's size.
 */
const KEY_REACH = 72;
/** Cutting off less than this share of a picture is not worth it. */
const WORTH = 0.9;

/**
 * How far beyond the source rectangle of a layer its picture depends on the footage, in footage
 * pixels: filters, and the key with its edge.
 */
export const roomAround = ({ source, destination, key, backdrop }: VideoLayer): number =>
  REACH * Math.max(1, source.width / destination.width, source.height / destination.height) +
  KEY_REACH +
  (key ? Math.abs(key.choke) + key.feather : 0) +
  (key && backdrop && typeof backdrop === 'object' ? 2 * backdrop.blur : 0);

/**
 * The part of each clip's footage that a run of pictures draws from, with room for the filters, on
 * even pixels: nothing else need be decoded to memory. Clips that need all, or nearly all, are left
 * out.
 *
 * @returns rectangles in footage pixels by clip id
 */
export function neededParts(plans: readonly FramePlan[]): Map<string, Rect> {
  const edges = new Map<
    string,
    { left: number; top: number; right: number; bottom: number; footage: Size }
  >();
  for (const plan of plans)
    for (const layer of everyVideoLayer(plan.layers)) {
      const { clipId, source, footage } = layer;
      const room = roomAround(layer);
      const known = edges.get(clipId);
      edges.set(clipId, {
        left: Math.min(source.x - room, known?.left ?? Infinity),
        top: Math.min(source.y - room, known?.top ?? Infinity),
        right: Math.max(source.x + source.width + room, known?.right ?? -Infinity),
        bottom: Math.max(source.y + source.height + room, known?.bottom ?? -Infinity),
        footage,
      });
    }
  const parts = new Map<string, Rect>();
  for (const [clipId, { left, top, right, bottom, footage }] of edges) {
    const { width, height } = footage;
    // Chroma of odd sides ends on half a pair, which a cut would move.
    if (width % 2 || height % 2) continue;
    const x = Math.max(0, Math.floor(left / 2) * 2);
    const y = Math.max(0, Math.floor(top / 2) * 2);
    const part = {
      x,
      y,
      width: Math.min(width, Math.ceil(right / 2) * 2) - x,
      height: Math.min(height, Math.ceil(bottom / 2) * 2) - y,
    };
    if (part.width * part.height < width * height * WORTH) parts.set(clipId, part);
  }
  return parts;
}
