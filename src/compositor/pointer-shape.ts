import type { PointerMark } from '@/core/frame/mark';
import type { Pen } from './rasterizer';

type Outline = readonly (readonly [number, number])[];

/** Outlines in units of the arrow's height, the tip at the origin. */
const ARROW: Outline = [
  [0, 0],
  [0, 0.87],
  [0.21, 0.68],
  [0.36, 1],
  [0.53, 0.92],
  [0.38, 0.62],
  [0.66, 0.6],
];
const BAR: Outline = [
  [-0.2, -0.5],
  [0.2, -0.5],
  [0.2, -0.42],
  [0.05, -0.38],
  [0.05, 0.38],
  [0.2, 0.42],
  [0.2, 0.5],
  [-0.2, 0.5],
  [-0.2, 0.42],
  [-0.05, 0.38],
  [-0.05, -0.38],
  [-0.2, -0.42],
];
const HAND: Outline = [
  [0, 0],
  [0.11, 0.06],
  [0.12, 0.36],
  [0.52, 0.46],
  [0.56, 0.6],
  [0.48, 1],
  [0.04, 1],
  [-0.3, 0.62],
  [-0.24, 0.52],
  [-0.12, 0.58],
  [-0.12, 0.06],
];
/** A double arrow across; turned, it is the others. */
const ACROSS: Outline = [
  [-0.5, 0],
  [-0.24, -0.24],
  [-0.24, -0.08],
  [0.24, -0.08],
  [0.24, -0.24],
  [0.5, 0],
  [0.24, 0.24],
  [0.24, 0.08],
  [-0.24, 0.08],
  [-0.24, 0.24],
];
const turned = (outline: Outline, degrees: number): Outline => {
  const [cos, sin] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return outline.map(([x, y]) => [x * cos - y * sin, x * sin + y * cos]);
};
/** An open ring: something is going on. */
const BUSY: Outline = [
  ...[0.42, 0.24].flatMap((radius, side) =>
    Array.from({ length: 25 }, (_, i) => {
      const step = side ? 24 - i : i;
      const angle = ((20 + (step * 320) / 24) * Math.PI) / 180;
      return [radius * Math.sin(angle), -radius * Math.cos(angle)] as const;
    }),
  ),
];
const OUTLINES: Record<PointerMark['shape'], Outline> = {
  ...{ arrow: ARROW, text: BAR, hand: HAND, busy: BUSY },
  ...{ across: ACROSS, down: turned(ACROSS, 90) },
  ...{ falling: turned(ACROSS, 45), rising: turned(ACROSS, -45) },
};

/** Room that the outlines need around the tip, in arrow heights. */
export const POINTER_BOX = { left: 0.55, top: 0.55, side: 1.65, margin: 0.12 } as const;

/**
 * Draws a pointer, dark with a light edge, so that it stands out on any ground. Pixels of the
 * sprite.
 */
export function paintPointer(
  pen: Pen,
  shape: PointerMark['shape'],
  tip: { x: number; y: number },
  height: number,
): void {
  const trace = () => {
    pen.beginPath();
    OUTLINES[shape].forEach(([x, y], i) => {
      const [px, py] = [tip.x + x * height, tip.y + y * height];
      if (i) pen.lineTo(px, py);
      else pen.moveTo(px, py);
    });
    pen.closePath();
  };
  pen.lineJoin = 'round';
  trace();
  pen.strokeStyle = '#ffffff';
  pen.lineWidth = Math.max(2, height * 0.11);
  pen.stroke();
  trace();
  pen.fillStyle = '#15191c';
  pen.fill();
}
