import type { SKRSContext2D } from '@napi-rs/canvas';

const SLIDES = [
  ['Kiln safety', 'Saltmarsh Clay'],
  ['Before you fire', 'Shelves clear, lid closed, fan on'],
  ['After the firing', 'Open below 60 °C, gloves on'],
];
export const SLIDE_COUNT = SLIDES.length;

/** Draws one slide of the 4:3 deck. */
export function drawSlide(c: SKRSContext2D, index: number) {
  const [title, line] = SLIDES[index]!;
  c.fillStyle = '#F2EDE4';
  c.fillRect(0, 0, 960, 720);
  c.fillStyle = '#B0583A';
  c.fillRect(80, 300, 120, 10);
  c.fillStyle = '#22303A';
  c.textAlign = 'left';
  c.font = '700 68px Kilnbook';
  c.fillText(title!, 80, 270);
  c.font = '400 38px Kilnbook';
  c.fillText(line!, 80, 380);
  c.font = '400 24px Kilnbook';
  c.fillText(`${index + 1} of ${SLIDE_COUNT}`, 80, 660);
}
