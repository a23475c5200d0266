import { UNPOSED } from './keyframes';
import fc from 'fast-check';
import { checkOf } from '../schema/check';
import { kindOf } from './kinds';
import { drawnLine, type PenPoint } from './pen';

const SIZE = { width: 2560, height: 1440 };
const FRAME = { width: 1920, height: 1080 };
const check = checkOf(kindOf({ kind: 'stroke' }).schema);
const base = { id: 'c', start: 0, end: 9, anchor: { to: 'frame' }, ...UNPOSED };

test('any line that goes somewhere is a sound callout, from its first point on', () => {
  const step = fc.record({ ms: fc.nat(50), dx: fc.integer({ min: -90, max: 90 }), dy: fc.nat(90) });
  fc.assert(
    fc.property(
      fc.array(step, { maxLength: 60 }),
      fc.constantFrom('pen', 'marker'),
      (steps, pen) => {
        let [ms, x, y] = [0, 100, 100];
        const points: PenPoint[] = [[ms, x, y]];
        for (const { ms: more, dx, dy } of steps) points.push([(ms += more), (x += dx), (y += dy)]);
        const line = drawnLine(pen as 'pen', points, SIZE, FRAME);
        if (!line)
          return expect(
            Math.max(...points.map((p) => Math.hypot(p[1] - 100, p[2] - 100))),
          ).toBeLessThan(2);
        expect(check({ ...base, ...line })).toHaveProperty('value');
        expect(line.points[0]).toEqual(points[0]);
      },
    ),
  );
});

test('its width is that of the whole frame, whatever it is drawn on; a slip of the hand is none', () => {
  const points: PenPoint[] = [
    [0, 10, 10],
    [40, 90, 90],
  ];
  expect(drawnLine('pen', points, SIZE, FRAME)!.width).toBe(9);
  expect(drawnLine('pen', points, { width: 1280, height: 720 }, FRAME)!.width).toBe(4);
  expect(drawnLine('pen', [points[0]!, [20, 10.5, 10]], SIZE, FRAME)).toBeNull();
});
