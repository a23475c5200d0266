import { assertNever } from '@/core/assert-never';
import type { OutlineMark } from '@/core/frame/mark';
import { SQUIRCLE_POWER } from '@/core/layout/mask';
import type { Pen } from './rasterizer';

/** Lines that a squircle is drawn by. */
const SQUIRCLE_CORNERS = 240;

/** Begins the path of an outline whose upper left corner is at a place. */
export function traceOutline(
  pen: Pen,
  { shape, radius, points = [], box: { width, height } }: OutlineMark,
  x: number,
  y: number,
): void {
  pen.beginPath();
  const [rx, ry] = [width / 2, height / 2];
  switch (shape) {
    case 'ellipse':
      pen.ellipse(x + rx, y + ry, rx, ry, 0, 0, Math.PI * 2);
      break;
    case 'rounded':
      pen.roundRect(x, y, width, height, radius);
      break;
    case 'squircle':
      for (let i = 0; i < SQUIRCLE_CORNERS; i++) {
        const turn = (i / SQUIRCLE_CORNERS) * Math.PI * 2;
        const at = (n: number) => Math.sign(n) * Math.abs(n) ** (2 / SQUIRCLE_POWER);
        pen.lineTo(x + rx + rx * at(Math.cos(turn)), y + ry + ry * at(Math.sin(turn)));
      }
      pen.closePath();
      break;
    case 'path':
      points.forEach((at, i) =>
        i ? pen.lineTo(x + at.x, y + at.y) : pen.moveTo(x + at.x, y + at.y),
      );
      pen.closePath();
      break;
    case 'rectangle':
      pen.rect(x, y, width, height);
      break;
    default:
      assertNever(shape);
  }
}
