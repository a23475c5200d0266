import { intersect } from '../scale/rect';
import { arrangementsFor } from './arrangements';
import { builtInOf } from './built-in';

const WIDE = { width: 1920, height: 1080 };
const UPRIGHT = { width: 1080, height: 1920 };

test.each([WIDE, UPRIGHT])('for $width to $height both are within the picture', (frame) => {
  const all = arrangementsFor(frame);
  expect(new Set(all.map(({ name }) => name)).size).toBe(all.length);
  for (const layout of all) {
    expect(builtInOf(layout)).toBeNull();
    const boxes = [layout.screen!.box];
    if (layout.presenter && layout.presenter !== 'placed') boxes.push(layout.presenter.box);
    for (const { x, y, width, height } of boxes) {
      expect(Math.min(x, y)).toBeGreaterThanOrEqual(0);
      expect(Math.max(x + width, y + height)).toBeLessThanOrEqual(1);
    }
    // Beside or below one another they do not overlap; in front of a whole screen one does.
    if (boxes.length > 1 && layout.alone === 'whole') {
      const both = intersect(boxes[0]!, boxes[1]!);
      expect(Math.min(both.width, both.height)).toBe(0);
    }
  }
});

test('an upright picture has a screen as wide as it is, in about its shape', () => {
  for (const { screen } of arrangementsFor(UPRIGHT)) {
    const { width, height } = screen!.box;
    expect(width).toBe(1);
    expect((width * UPRIGHT.width) / (height * UPRIGHT.height)).toBeCloseTo(16 / 9, 0);
  }
});
