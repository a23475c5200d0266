import fc from 'fast-check';
import { middleOf, turnedAbout } from '../scale/rect';
import { turnedBack } from './turned-back';

const OUTPUT = { width: 120, height: 80 };

test('a spot that is seen turned is where it is upright', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: -45, max: 45 }),
      fc.integer({ min: 20, max: 90 }),
      fc.integer({ min: 20, max: 60 }),
      (turn, x, y) => {
        const upright = { stage: { x: 0, y: 0, width: 160, height: 150 } };
        const screen = { turn, stage: { x: 10, y: 8, width: 100, height: 60 } };
        const data = new Uint8Array(128 * OUTPUT.height);
        for (let row = y - 2; row < y + 2; row++)
          data.fill(200, row * 128 + x - 2, row * 128 + x + 2);
        const made = turnedBack({ data, stride: 128, ...OUTPUT }, screen, upright);
        expect([made.width, made.height]).toEqual([160, 150]);
        const about = middleOf(screen.stage);
        const before = turnedAbout({ x, y }, about, -turn);
        const [u, v] = [before.x - about.x + 80, before.y - about.y + 75];
        const at = (px: number, py: number) =>
          made.data[Math.floor(py) * made.stride + Math.floor(px)];
        expect(at(u, v)).toBe(200);
        expect(at(u + 5, v + 5)).toBe(0);
      },
    ),
  );
});
