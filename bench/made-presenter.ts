import { createCanvas, type SKRSContext2D } from '@napi-rs/canvas';

/*
 * A made presenter with known opacity before an uneven green wall: head with loose strands of hair,
 * shoulders, a hand that moves fast enough to blur. Colours are mixed by opacity, lit by the wall
 * where they are near it, then get sensor noise.
 */
export const MADE = { width: 1280, height: 720 };
/** Positions of the hand that are averaged in one exposure. */
const EXPOSURE = 12;

/** Opacity of each pixel, 0 to 1, and the picture as RGB, 0 to 255. */
export interface MadeFrame {
  readonly alpha: Float32Array;
  readonly rgb: Float32Array;
  /** The presenter's own colours times their opacity, without the wall. */
  readonly person: Float32Array;
}

/** Evenly distributed numbers from 0 to 1 that are the same in every run (mulberry32). */
export function numbers(seed: number): () => number {
  let a = seed;
  return () => {
    a = (a + 0x6d2b79f5) | 0;
    let t = Math.imul(a ^ (a >>> 15), 1 | a);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

function still(pen: SKRSContext2D, sway: number): void {
  pen.fillStyle = '#3a4f7a';
  pen.beginPath();
  pen.moveTo(330, 720);
  pen.bezierCurveTo(360, 520, 500, 500, 600 + sway, 480);
  pen.bezierCurveTo(760, 500, 900, 520, 940, 720);
  pen.fill();
  pen.fillStyle = '#c98d6c';
  pen.fillRect(585 + sway, 420, 90, 90);
  pen.beginPath();
  pen.ellipse(630 + sway, 310, 105, 140, 0, 0, 7);
  pen.fill();
  pen.fillStyle = '#2c1f1a';
  pen.beginPath();
  pen.ellipse(630 + sway, 225, 125, 95, 0, Math.PI, 0);
  pen.bezierCurveTo(770 + sway, 330, 750 + sway, 420, 735 + sway, 440);
  pen.bezierCurveTo(730 + sway, 330, 700 + sway, 260, 630 + sway, 245);
  pen.bezierCurveTo(560 + sway, 260, 530 + sway, 330, 525 + sway, 440);
  pen.bezierCurveTo(500 + sway, 400, 495 + sway, 300, 505 + sway, 225);
  pen.fill();
  const random = numbers(7);
  pen.strokeStyle = '#33241d';
  for (let i = 0; i < 160; i++) {
    const angle = Math.PI * (1 + random());
    const [x, y] = [630 + sway + 120 * Math.cos(angle), 230 + 95 * Math.sin(angle)];
    pen.lineWidth = 0.6 + random() * 1.6;
    pen.beginPath();
    pen.moveTo(x, y);
    pen.quadraticCurveTo(
      x + (random() - 0.5) * 40,
      y - random() * 30,
      x + Math.cos(angle) * 45 + (random() - 0.5) * 30,
      y + Math.sin(angle) * 40 + random() * 20,
    );
    pen.stroke();
  }
}

function hand(pen: SKRSContext2D, time: number): void {
  const x = 980 + 90 * Math.sin(time * 9);
  const y = 420 + 70 * Math.cos(time * 7);
  pen.strokeStyle = '#3a4f7a';
  pen.lineWidth = 70;
  pen.lineCap = 'round';
  pen.beginPath();
  pen.moveTo(880, 640);
  pen.lineTo(x - 20, y + 50);
  pen.stroke();
  pen.strokeStyle = '#c98d6c';
  pen.lineWidth = 16;
  for (let i = 0; i < 5; i++) {
    pen.beginPath();
    pen.moveTo(x, y + 20);
    pen.lineTo(x - 40 + i * 20, y - 55 + Math.abs(i - 2) * 8);
    pen.stroke();
  }
  pen.fillStyle = '#c98d6c';
  pen.beginPath();
  pen.ellipse(x, y + 15, 40, 38, 0, 0, 7);
  pen.fill();
}

/** Frame `n` of thirty a second. */
export function madeFrame(n: number): MadeFrame {
  const { width, height } = MADE;
  const count = width * height;
  const alpha = new Float32Array(count);
  const person = new Float32Array(count * 3);
  const canvas = createCanvas(width, height);
  const pen = canvas.getContext('2d');
  for (let e = 0; e < EXPOSURE; e++) {
    const time = (n + (e / EXPOSURE) * 0.7) / 30;
    pen.clearRect(0, 0, width, height);
    still(pen, Math.sin(time * 2) * 14);
    hand(pen, time);
    const { data } = pen.getImageData(0, 0, width, height);
    for (let i = 0; i < count; i++) {
      const a = data[i * 4 + 3]! / 255 / EXPOSURE;
      if (!a) continue;
      alpha[i]! += a;
      for (let c = 0; c < 3; c++) person[i * 3 + c]! += data[i * 4 + c]! * a;
    }
  }
  const random = numbers(n + 1);
  const rgb = new Float32Array(count * 3);
  const noise = () => (random() + random() + random() + random() - 2) * 4.5;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const a = alpha[i]!;
      // Light falls off to the sides and downwards; one corner is warmer than the other.
      const light = 0.72 + 0.4 * Math.exp(-(((x - 520) / 620) ** 2) - ((y - 220) / 480) ** 2);
      const wall = [light * (58 + 16 * (x / width)), light * 168, light * 84];
      const spill = 0.05 * (1 - a) + 0.03;
      for (let c = 0; c < 3; c++) {
        const own = person[i * 3 + c]!;
        const lit = own + a * spill * (wall[c]! - 60);
        rgb[i * 3 + c] = Math.min(255, Math.max(0, lit + (1 - a) * wall[c]! + noise()));
      }
    }
  return { alpha, rgb, person };
}
