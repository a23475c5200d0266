/*
 * Box blur with running sums, so that its cost does not depend on the radius.
 * Three passes come close to a Gaussian (central limit).
 */

/** One pass over lines of `length` samples that stand `step` bytes apart; the outermost sample repeats beyond the edge. */
// @ts-ignore: decorator
@inline
function pass(source: usize, target: usize, lines: i32, lineStride: i32, targetLineStride: i32, length: i32, step: i32, targetStep: i32, radius: i32): void {
  const reciprocal: u32 = <u32>((1 << 22) / (2 * radius + 1));
  for (let line = 0; line < lines; line++) {
    const from = source + <usize>(line * lineStride);
    const to = target + <usize>(line * targetLineStride);
    const first = <i32>load<u8>(from);
    const last = <i32>load<u8>(from + <usize>((length - 1) * step));
    let sum = first * radius;
    for (let i = 0; i < radius; i++) sum += <i32>load<u8>(from + <usize>(min(i, length - 1) * step));
    for (let i = 0; i < length; i++) {
      sum += i + radius < length ? <i32>load<u8>(from + <usize>((i + radius) * step)) : last;
      store<u8>(to + <usize>(i * targetStep), <u8>((<u32>sum * reciprocal + (1 << 21)) >> 22));
      sum -= i - radius >= 0 ? <i32>load<u8>(from + <usize>((i - radius) * step)) : first;
    }
  }
}

/** Blurs a rectangle of a plane in place. `scratch` holds `width * height` bytes. */
export function boxBlurPlane(plane: usize, stride: i32, width: i32, height: i32, radius: i32, passes: i32, scratch: usize): void {
  if (radius < 1 || width < 1 || height < 1) return;
  for (let p = 0; p < passes; p++) {
    pass(plane, scratch, height, stride, width, width, 1, 1, min(radius, 255));
    pass(scratch, plane, width, 1, 1, height, width, stride, min(radius, 255));
  }
}
