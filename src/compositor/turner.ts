import { intersect, middleOf, sizeTurned, turned, type Rect, type Size } from '@/core/scale/rect';
import type { Point } from '@/core/schema/parts';
import type { KernelHeap } from '@/kernels/heap';
import type { PlanarFrame } from '@/kernels/planar';
import { allocateInset, releaseInset, type Inset } from './inset';
import type { ColorPlanes } from './scaled';
import { Warper, type Affine } from './warper';

/** Clear pixels around what is turned, for its edge to be soft. */
const MARGIN = 2;

/** Turns insets about their middle. */
export class Turner {
  private readonly warper: Warper;

  constructor(private readonly heap: KernelHeap) {
    this.warper = new Warper(heap);
  }

  /**
   * An inset turned clockwise by so many degrees, and the even rectangle of the output that it then
   * has; to be released by the caller. Null when nothing of it lies within the output.
   */
  turn(
    inset: Inset,
    { x, y, width, height }: Rect,
    degrees: number,
    output: Size,
  ): { inset: Inset; box: Rect } | null {
    const middle = middleOf({ x, y, width, height });
    const around = sizeTurned({ width, height }, degrees);
    const half = { x: around.width / 2 + MARGIN, y: around.height / 2 + MARGIN };
    const left = Math.floor((middle.x - half.x) / 2) * 2;
    const top = Math.floor((middle.y - half.y) / 2) * 2;
    const box = intersect(
      {
        x: left,
        y: top,
        width: Math.ceil((middle.x + half.x - left) / 2) * 2,
        height: Math.ceil((middle.y + half.y - top) / 2) * 2,
      },
      { x: 0, y: 0, width: output.width & ~1, height: output.height & ~1 },
    );
    if (box.width < 2 || box.height < 2) return null;
    const framed = this.withMargin(inset);
    const made = allocateInset(this.heap, box.width, box.height);
    const from = { x: box.x - middle.x, y: box.y - middle.y };
    this.warper.warp(framed, made, mappingTurned(framed.y, degrees, from));
    releaseInset(this.heap, framed);
    return { inset: made, box };
  }

  /**
   * Fills colours with what of a picture is seen there when it is turned clockwise about its middle.
   *
   * @param from where the upper left corner of what is filled is, seen from that middle, in pixels
   */
  part(picture: PlanarFrame, degrees: number, from: Point, into: ColorPlanes): void {
    this.warper.colors(picture, into, mappingTurned(picture, degrees, from));
  }

  /** An inset with a clear border for its turned edge to fade into. */
  private withMargin(inset: Inset): Inset {
    const { heap } = this;
    const framed = allocateInset(heap, inset.y.width + MARGIN * 2, inset.y.height + MARGIN * 2);
    for (const [name, margin, nothing] of [
      ['y', MARGIN, 0],
      ['alpha', MARGIN, 0],
      ['u', MARGIN / 2, 128],
      ['v', MARGIN / 2, 128],
      ['chromaAlpha', MARGIN / 2, 0],
    ] as const) {
      const [from, to] = [inset[name], framed[name]];
      heap.exports.fillPlane(to.at, to.stride, to.width, to.height, nothing);
      heap.exports.copyRows(
        from.at,
        from.stride,
        to.at + margin * to.stride + margin,
        to.stride,
        from.width,
        from.height,
      );
    }
    return framed;
  }
}

/**
 * Where samples come from when a picture is turned clockwise about its middle.
 *
 * @param from the upper left corner of what is filled, seen from that middle, in pixels
 */
function mappingTurned({ width, height }: Size, degrees: number, from: Point): Affine {
  const { x: cos, y: sin } = turned(1, 0, degrees);
  const { x, y } = turned(from.x, from.y, -degrees);
  return {
    ...{ ax: cos, bx: sin, cx: x + width / 2 },
    ...{ ay: -sin, by: cos, cy: y + height / 2 },
  };
}
