import fc from 'fast-check';
import { tidyArea } from './area';
import { areaOfShape, barsOf, bestCamera, captureSize } from './capture';
import { sharpLimit } from './sharpness';

const FULL_HD = { width: 1920, height: 1080 };
const side = fc.integer({ min: 160, max: 4000 });
const size = fc.record({ width: side, height: side });

test('a recording of the advised size is sharp at the closest view', () => {
  fc.assert(
    fc.property(size, fc.double({ min: 1, max: 4, noNaN: true }), (frame, closest) => {
      const capture = captureSize(frame, closest);
      expect((capture.width % 2) + (capture.height % 2)).toBe(0);
      expect(sharpLimit(capture, frame)).toBeGreaterThanOrEqual(closest - 1e-9);
    }),
  );
});

test('known bars: 4:3 and ultra-wide in a 16:9 frame', () => {
  expect(barsOf({ width: 1600, height: 1200 }, FULL_HD)).toEqual({
    side: 240,
    above: 0,
    share: 0.25,
    lost: 0.25,
  });
  const wide = barsOf({ width: 3440, height: 1440 }, FULL_HD);
  expect([wide.side, wide.above]).toEqual([0, 138]);
  expect(barsOf({ width: 2560, height: 1440 }, FULL_HD)).toEqual({
    side: 0,
    above: 0,
    share: 0,
    lost: 0,
  });
});

test('the area that is advised has the frame’s shape, lies inside and leaves no bars to speak of', () => {
  fc.assert(
    fc.property(size, size, (source, frame) => {
      fc.pre(Math.max(frame.width / frame.height, frame.height / frame.width) < 4);
      const area = areaOfShape(source, frame);
      expect(area.x + area.width).toBeLessThanOrEqual(source.width);
      expect(area.y + area.height).toBeLessThanOrEqual(source.height);
      expect([area.x % 2, area.y % 2, area.width % 2, area.height % 2]).toEqual([0, 0, 0, 0]);
      expect(barsOf(area, frame).share).toBeLessThan(0.08);
    }),
  );
});

test('the camera that fills the frame without bars', () => {
  expect(bestCamera(FULL_HD)).toMatchObject({ width: 1920, height: 1080, fills: true });
  expect(bestCamera({ width: 1080, height: 1920 })).toBeNull();
});

test('an area is brought inside the screen it is used on, on even pixels', () => {
  const screen = { width: 1367, height: 769 };
  expect(tidyArea({ x: 1000, y: 701, width: 801.5, height: 600 }, screen)).toEqual({
    x: 564,
    y: 168,
    width: 802,
    height: 600,
  });
  expect(tidyArea({ x: -40, y: 3, width: 9999, height: 1 }, screen)).toEqual({
    x: 0,
    y: 4,
    width: 1366,
    height: 16,
  });
});

test('tidying what is tidy changes nothing', () => {
  const rect = fc.record({ x: fc.integer(), y: fc.integer(), width: side, height: side });
  fc.assert(
    fc.property(rect, size, (area, screen) => {
      const once = tidyArea(area, screen);
      expect(tidyArea(once, screen)).toEqual(once);
      expect(once.x + once.width).toBeLessThanOrEqual(screen.width);
      expect(once.y + once.height).toBeLessThanOrEqual(screen.height);
    }),
  );
});
