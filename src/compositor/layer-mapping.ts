import type { VideoLayer } from '@/core/frame/plan';
import { chromaRangeX } from '@/core/scale/filter';
import type { Rect } from '@/core/scale/rect';
import { subPlane, type PlanarFrame } from '@/kernels/planar';
import type { ColorPlanes, PictureMapping } from './scaled';

/** A rectangle of a picture, on even pixels. */
export const partOf = (
  { y, u, v }: PlanarFrame,
  { x, y: top, width, height }: Rect,
): ColorPlanes => ({
  y: subPlane(y, x, top, width, height),
  u: subPlane(u, x / 2, top / 2, width / 2, height / 2),
  v: subPlane(v, x / 2, top / 2, width / 2, height / 2),
});

/**
 * Where a layer's samples are in the picture at hand, which shows a part of the recording or all of
 * it.
 */
export function mappingOf(
  { source, footage, destination, mirror }: VideoLayer,
  { y }: ColorPlanes,
  part: Rect | null,
): PictureMapping {
  const shown = part ?? { x: 0, y: 0, ...footage };
  const sx = y.width / shown.width;
  const sy = y.height / shown.height;
  const columns = { origin: (source.x - shown.x) * sx, span: source.width * sx };
  const rows = { origin: (source.y - shown.y) * sy, span: source.height * sy };
  const chromaRows = { origin: rows.origin / 2, span: rows.span / 2 };
  return {
    luma: { columns, rows, mirror },
    chroma: {
      columns: chromaRangeX(columns.origin, columns.span, columns.span / destination.width),
      rows: chromaRows,
      mirror,
    },
  };
}
