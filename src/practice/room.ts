import type { Brush } from './brush';
import { CAMERA_HEIGHT, CAMERA_WIDTH } from './presenter';

const W = CAMERA_WIDTH;
const H = CAMERA_HEIGHT;

/** The corner of a studio behind the presenter: a wall with shelves of pots, a window, a plant. */
export function drawRoom(c: Brush): void {
  const wall = c.createLinearGradient(0, 0, W, 0);
  wall.addColorStop(0, '#DAD3C6');
  wall.addColorStop(1, '#A9A294');
  c.fillStyle = wall;
  c.fillRect(0, 0, W, H);
  c.fillStyle = '#8A7B68';
  c.fillRect(0, 600, W, 120);
  window(c);
  for (const y of [170, 320, 470]) shelf(c, 830, y, 400);
  plant(c, 420, 600);
}

function window(c: Brush): void {
  c.fillStyle = '#6D5F50';
  c.fillRect(70, 90, 290, 300);
  const light = c.createLinearGradient(0, 90, 0, 390);
  light.addColorStop(0, '#DDEBF4');
  light.addColorStop(1, '#B7C9AE');
  c.fillStyle = light;
  c.fillRect(84, 104, 262, 272);
  c.fillStyle = '#6D5F50';
  c.fillRect(208, 104, 14, 272);
  c.fillRect(84, 232, 262, 12);
}

function shelf(c: Brush, x: number, y: number, width: number): void {
  c.fillStyle = '#6E4F36';
  c.fillRect(x, y, width, 14);
  const glazes = ['#7FA7A3', '#B9653C', '#E3D9C2', '#4E6B7D', '#94793E'];
  for (let i = 0; i < 5; i++) {
    const [left, size] = [x + 14 + i * 78, 46 + ((i * 37 + y) % 29)];
    c.fillStyle = glazes[(i + y) % 5]!;
    c.beginPath();
    c.ellipse(left + 28, y - size / 2, 27, size / 2, 0, 0, Math.PI * 2);
    c.fill();
    c.fillRect(left + 16, y - size - 8, 24, 14);
  }
}

function plant(c: Brush, x: number, y: number): void {
  c.strokeStyle = '#4B6B3F';
  c.lineWidth = 12;
  c.lineCap = 'round';
  for (let i = -3; i <= 3; i++) {
    c.beginPath();
    c.moveTo(x, y - 70);
    c.quadraticCurveTo(x + i * 14, y - 160, x + i * 38, y - 190 + Math.abs(i) * 24);
    c.stroke();
  }
  c.fillStyle = '#B26A45';
  c.fillRect(x - 42, y - 80, 84, 80);
}
