import type { MixLayer } from '@/core/frame/plan';
import type { KernelHeap } from '@/kernels/heap';
import type { Plane } from '@/kernels/planar';

/**
 * Moves a plane in over another of the same size from one side, by whole even pixels of the
 * picture; in a push the other moves out.
 *
 * @param target the plane that is covered, changed in place
 * @param amount how far it is, 0 to 1
 * @param by so many pixels of the picture a sample stands for in each direction
 */
export function movePlane(
  heap: KernelHeap,
  target: Plane,
  source: Plane,
  { kind, from }: NonNullable<MixLayer['motion']>,
  amount: number,
  by: number,
): void {
  const { width, height } = target;
  const across = from === 'left' || from === 'right';
  const far = (across ? width : height) * by;
  const way = Math.min(across ? width : height, (Math.round((far * amount) / 2) * 2) / by);
  const copy = (
    from: Plane,
    fx: number,
    fy: number,
    to: Plane,
    tx: number,
    ty: number,
    w: number,
    h: number,
  ) =>
    heap.exports.copyRows(
      from.at + fy * from.stride + fx,
      from.stride,
      to.at + ty * to.stride + tx,
      to.stride,
      w,
      h,
    );
  if (kind === 'push') {
    using kept = heap.borrow(width * height);
    const old: Plane = { at: kept.at, stride: width, width, height };
    copy(target, 0, 0, old, 0, 0, width, height);
    if (across)
      copy(
        old,
        from === 'right' ? way : 0,
        0,
        target,
        from === 'right' ? 0 : way,
        0,
        width - way,
        height,
      );
    else
      copy(
        old,
        0,
        from === 'bottom' ? way : 0,
        target,
        0,
        from === 'bottom' ? 0 : way,
        width,
        height - way,
      );
  }
  if (across)
    copy(
      source,
      from === 'right' ? 0 : width - way,
      0,
      target,
      from === 'right' ? width - way : 0,
      0,
      way,
      height,
    );
  else
    copy(
      source,
      0,
      from === 'bottom' ? 0 : height - way,
      target,
      0,
      from === 'bottom' ? height - way : 0,
      width,
      way,
    );
}
