import type { Brush } from './brush';

export const CAMERA_WIDTH = 1280;
export const CAMERA_HEIGHT = 720;
const W = CAMERA_WIDTH;
const H = CAMERA_HEIGHT;

interface Strand {
  readonly angle: number;
  readonly length: number;
  readonly sway: number;
}

/** Hair, strand by strand; `random` gives numbers in [0, 1). */
export const hairStrands = (random: () => number, count = 190): Strand[] =>
  Array.from({ length: count }, (_, i) => ({
    angle: Math.PI * (0.94 + 1.12 * (i / count)),
    length: 26 + random() * 40,
    sway: random() * 6.28,
  }));

/** The green wall behind the presenter, lit from one side. */
export function drawWall(c: Brush): void {
  c.fillStyle = '#2F9A4B';
  c.fillRect(0, 0, W, H);
  const lamp = c.createRadialGradient(330, 210, 60, 330, 210, 900);
  lamp.addColorStop(0, 'rgba(150,235,140,0.55)');
  lamp.addColorStop(0.5, 'rgba(60,160,80,0.12)');
  lamp.addColorStop(1, 'rgba(0,50,20,0.5)');
  c.fillStyle = lamp;
  c.fillRect(0, 0, W, H);
  c.strokeStyle = 'rgba(0,60,20,0.18)';
  c.lineWidth = 14;
  for (const x of [180, 940, 1130]) {
    c.beginPath();
    c.moveTo(x, 0);
    c.quadraticCurveTo(x + 30, 360, x - 12, 720);
    c.stroke();
  }
}

/** The made presenter at `t` seconds; `voice` is the loudness of the word being said, 0 to 1. */
export function drawPresenter(
  c: Brush,
  strands: readonly Strand[],
  t: number,
  voice: number,
): void {
  const lean = Math.sin(t * 0.7) * 10 + Math.sin(t * 0.23) * 8;
  const nod = Math.sin(t * 1.9) * 4 + voice * 5;
  const cx = 640 + lean;
  const head = { x: cx + Math.sin(t * 0.9) * 8, y: 250 + nod };
  // Torso and apron
  c.fillStyle = '#6B4A5C';
  c.beginPath();
  c.moveTo(cx - 230, H);
  c.bezierCurveTo(cx - 225, 500, cx - 150, 452, cx - 60, 430);
  c.lineTo(cx + 60, 430);
  c.bezierCurveTo(cx + 150, 452, cx + 225, 500, cx + 230, H);
  c.fill();
  c.fillStyle = '#D8C6A4';
  c.fillRect(cx - 105, 520, 210, 200);
  c.fillRect(cx - 92, 440, 18, 90);
  c.fillRect(cx + 74, 440, 18, 90);
  c.fillStyle = '#C98F74';
  c.fillRect(head.x - 40, head.y + 90, 80, 105);
  // Hair behind, strand by strand
  c.strokeStyle = '#3A2A24';
  c.lineCap = 'round';
  for (const strand of strands) {
    const swing = Math.sin(t * 1.3 + strand.sway) * 0.05;
    const a = strand.angle + swing;
    c.lineWidth = 2.2;
    c.beginPath();
    c.moveTo(head.x + Math.cos(a) * 92, head.y - 8 + Math.sin(a) * 112);
    c.quadraticCurveTo(
      head.x + Math.cos(a) * (110 + strand.length * 0.4),
      head.y + Math.sin(a) * 126,
      head.x + Math.cos(a + 0.12) * (104 + strand.length),
      head.y + 6 + Math.sin(a + 0.1) * (110 + strand.length * 0.6),
    );
    c.stroke();
  }
  c.fillStyle = '#3A2A24';
  c.beginPath();
  c.ellipse(head.x, head.y - 22, 112, 128, 0, 0, Math.PI * 2);
  c.fill();
  // Face
  c.fillStyle = '#DDA488';
  c.beginPath();
  c.ellipse(head.x, head.y + 12, 88, 116, 0, 0, Math.PI * 2);
  c.fill();
  c.fillStyle = '#3A2A24';
  c.beginPath();
  c.ellipse(head.x - 6, head.y - 92, 90, 42, -0.12, 0, Math.PI * 2);
  c.fill();
  const blink = t % 3.7 < 0.14 ? 0.15 : 1;
  for (const side of [-1, 1]) {
    c.fillStyle = '#FFFFFF';
    c.beginPath();
    c.ellipse(head.x + side * 34, head.y - 4, 16, 10 * blink, 0, 0, Math.PI * 2);
    c.fill();
    c.fillStyle = '#2C3B40';
    c.beginPath();
    c.ellipse(
      head.x + side * 34 + Math.sin(t * 0.6) * 4,
      head.y - 4,
      7,
      8 * blink,
      0,
      0,
      Math.PI * 2,
    );
    c.fill();
    c.strokeStyle = '#3A2A24';
    c.lineWidth = 6;
    c.beginPath();
    c.moveTo(head.x + side * 18, head.y - 32 - voice * 5);
    c.lineTo(head.x + side * 52, head.y - 30 - voice * 3);
    c.stroke();
  }
  c.strokeStyle = '#B97E64';
  c.lineWidth = 5;
  c.beginPath();
  c.moveTo(head.x + 2, head.y + 8);
  c.lineTo(head.x + 9, head.y + 34);
  c.lineTo(head.x - 6, head.y + 36);
  c.stroke();
  c.fillStyle = '#8C3D3D';
  c.beginPath();
  c.ellipse(head.x, head.y + 66, 30 - voice * 5, 5 + voice * 20, 0, 0, Math.PI * 2);
  c.fill();
  // Hands, which speak along
  for (const side of [-1, 1]) {
    const lift = 0.5 + 0.5 * Math.sin(t * 1.15 + side);
    const hx = cx + side * (205 + 40 * Math.sin(t * 1.7 + side * 2));
    const hy = 640 - 120 * lift * (0.35 + voice * 0.65);
    c.strokeStyle = '#6B4A5C';
    c.lineWidth = 62;
    c.beginPath();
    c.moveTo(cx + side * 190, 600);
    c.quadraticCurveTo(cx + side * 290, 690, hx, hy + 40);
    c.stroke();
    c.fillStyle = '#DDA488';
    c.beginPath();
    c.ellipse(hx, hy, 36, 42, side * 0.4, 0, Math.PI * 2);
    c.fill();
    c.strokeStyle = '#DDA488';
    c.lineWidth = 15;
    for (let f = -1; f <= 2; f++) {
      const a = -Math.PI / 2 + side * 0.35 + f * 0.27 + Math.sin(t * 2.2 + f) * 0.06;
      c.beginPath();
      c.moveTo(hx, hy);
      c.lineTo(hx + Math.cos(a) * 68, hy + Math.sin(a) * 68);
      c.stroke();
    }
  }
}
