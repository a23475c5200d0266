/* Masks: 1 for each sample that belongs to something, row by row. */

/** The edges of what a mask shows, in samples; right and bottom are beyond it. */
export interface MaskBox {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** The box around what a mask shows, and how many samples that is; null where it shows nothing. */
export function boxAround(mask: Uint8Array, width: number): (MaskBox & { count: number }) | null {
  const first = mask.indexOf(1);
  if (first < 0) return null;
  let [left, right, count] = [width, 0, 0];
  mask.forEach((on, at) => {
    if (!on) return;
    left = Math.min(left, at % width);
    right = Math.max(right, (at % width) + 1);
    count++;
  });
  const [top, bottom] = [first, mask.lastIndexOf(1) + width].map((at) => Math.floor(at / width));
  return { left, top: top!, right, bottom: bottom!, count };
}

/** What is within an outline, itself included: all that can't be reached from the edge around it. */
export function filled(mask: Uint8Array, width: number, height: number): Uint8Array {
  const outside = new Uint8Array(width * height);
  const open: number[] = [];
  const visit = (x: number, y: number) => {
    const at = y * width + x;
    if (x < 0 || y < 0 || x >= width || y >= height || outside[at] || mask[at]) return;
    outside[at] = 1;
    open.push(at);
  };
  for (let x = 0; x < width; x++) [0, height - 1].forEach((y) => visit(x, y));
  for (let y = 0; y < height; y++) [0, width - 1].forEach((x) => visit(x, y));
  while (open.length) {
    const at = open.pop()!;
    const x = at % width;
    const y = (at - x) / width;
    visit(x + 1, y);
    visit(x - 1, y);
    visit(x, y + 1);
    visit(x, y - 1);
  }
  return outside.map((out) => 1 - out);
}

/** A mask with all within so many pixels of it. */
export function grown(mask: Uint8Array, width: number, height: number, by: number): Uint8Array {
  return mask.map((_, at) => {
    const x = at % width;
    const y = (at - x) / width;
    for (let v = Math.max(0, y - by); v <= Math.min(height - 1, y + by); v++)
      for (let u = Math.max(0, x - by); u <= Math.min(width - 1, x + by); u++)
        if (mask[v * width + u]) return 1;
    return 0;
  });
}
