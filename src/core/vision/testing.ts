import type { Size } from '../scale/rect';
import type { Luma } from './luma';

/** An arrow as pointers have it: `#` dark, `o` light, `.` nothing. */
export const ARROW = [
  'o............',
  'oo...........',
  'o#o..........',
  'o##o.........',
  'o###o........',
  'o####o.......',
  'o#####o......',
  'o######o.....',
  'o#######o....',
  'o########o...',
  'o#########o..',
  'o##########o.',
  'o######oooooo',
  'o###o##o.....',
  'o##oo###o....',
  'o#o..o##o....',
  'oo...o###o...',
  'o.....o##o...',
  '......o##o...',
  '.......oo....',
];

/** A text cursor. */
export const BEAM = [
  ...['##...##', '..###..'],
  ...Array.from({ length: 15 }, () => '...#...'),
  ...['..###..', '##...##'],
];

/** A picture of one tone, or one that looks like a page: stripes of text on a light ground. */
export function blank({ width, height }: Size, page = false): Luma & { data: Uint8Array } {
  const data = new Uint8Array(width * height).fill(page ? 226 : 200);
  if (page)
    for (let y = 12; y < height - 8; y += 22)
      for (let x = 20; x < width - 20; x++)
        for (let v = 0; v < 7; v++)
          if ((Math.imul(x * 131 + y * 7 + v * 977, 2654435761) >>> 28) % 3 === 0 && x % 9 < 6)
            data[(y + v) * width + x] = 60;
  return { data, width, height, stride: width };
}

/** Stamps a drawing of `#` and `o` into a picture. */
export function stamp(
  { data, stride, width, height }: Luma,
  drawing: readonly string[],
  x: number,
  y: number,
  [dark, light]: readonly [number, number] = [20, 240],
): void {
  drawing.forEach((row, v) => {
    [...row].forEach((mark, u) => {
      const inside = x + u >= 0 && y + v >= 0 && x + u < width && y + v < height;
      if (mark !== '.' && inside) data[(y + v) * stride + x + u] = mark === '#' ? dark : light;
    });
  });
}

/** A page of lines of letters, none of which is like another. */
export function letters({ width, height }: Size): Luma & { data: Uint8Array } {
  const data = new Uint8Array(width * height).fill(226);
  let state = 7;
  const next = () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
  for (let y = 10; y < height - 12; y += 20)
    for (let x = 16; x < width - 24; x += 7)
      if (next() < 0.85)
        for (let stroke = 0; stroke < 4; stroke++) {
          const [u, v] = [Math.floor(next() * 5), Math.floor(next() * 8)];
          const upright = next() < 0.5;
          for (let i = 0; i < 4; i++)
            data[(y + v + (upright ? i : 0)) * width + x + u + (upright ? 0 : i)] = 60;
        }
  return { data, width, height, stride: width };
}
