import type { Static } from '@sinclair/typebox';
import type { PointerTrack } from '../telemetry/pointer-track';
import { pressAt } from '../telemetry/press';
import { ring } from './looks/ring';
import { newLook } from './model';
import type { PointerScene } from './look';

const press = (t: number, length: number, button = 0) => [
  { t, type: 'down' as const, button },
  { t: t + length, type: 'up' as const, button },
];
const track: PointerTrack = {
  ...{ format: 'vistum-pointer', version: 1, width: 100, height: 100, samples: [[0, 1, 1]] },
  events: [...press(1000, 80), ...press(1250, 80), ...press(3000, 900), ...press(6000, 80, 2)],
};

test('what was pressed last: once, twice, dragged, or with the second button', () => {
  expect(pressAt(track, 999)).toBeNull();
  expect(pressAt(track, 1040)).toEqual({ kind: 'main', since: 40, released: 0 });
  expect(pressAt(track, 1300)).toMatchObject({ kind: 'double', since: 50 });
  expect(pressAt(track, 3500)).toEqual({ kind: 'drag', since: 500, released: 0 });
  expect(pressAt(track, 4000)).toEqual({ kind: 'drag', since: 1000, released: 100 });
  expect(pressAt(track, 6200)).toEqual({ kind: 'second', since: 200, released: 120 });
});

test('a ring grows around the press and fades; each kind of press has a form of its own', () => {
  const look = newLook('ring') as Static<typeof ring.schema>;
  const scene = (ms: number): PointerScene => ({
    ...{ track, ms, strength: 1, drawn: null, output: { width: 100, height: 100 } },
    ...{ tip: { x: 50, y: 60 }, scale: 2, press: pressAt(track, ms) },
    stage: { x: 0, y: 0, width: 100, height: 100 },
    // It was pressed elsewhere than where it is by now.
    before: () => ({ x: 40, y: 30 }),
    inset: () => {
      throw new Error('no lens');
    },
  });
  const drawn = (ms: number) =>
    ring.marks!(look, scene(ms)).map((layer) => {
      if (layer.kind !== 'drawing' || layer.mark.kind !== 'outline') throw new Error('no ring');
      const { box, shape, fill, stroke } = layer.mark;
      const held = pressAt(track, ms)!.kind === 'drag' && pressAt(track, ms)!.released === 0;
      expect(box.x + box.width / 2).toBeCloseTo(held ? 50 : 40);
      expect(box.y + box.height / 2).toBeCloseTo(held ? 60 : 30);
      expect(stroke!.width).toBe(look.line * 2);
      return { width: box.width, shape, filled: fill !== null, opacity: layer.opacity };
    });
  expect(drawn(500)).toEqual([]);
  const [early, late] = [drawn(1020)[0]!, drawn(1200)[0]!];
  expect(early.shape).toBe('ellipse');
  expect(late.width).toBeGreaterThan(early.width);
  expect(late.width).toBeLessThanOrEqual(look.size * 2);
  expect(late.opacity).toBeLessThan(early.opacity);
  expect(drawn(1300)).toHaveLength(2);
  expect(drawn(2500)).toEqual([]);
  // Something that is dragged keeps its disc until it is let go, and a little longer.
  expect(drawn(3850)).toMatchObject([{ filled: true, opacity: 0.5 }]);
  expect(drawn(4600)).toEqual([]);
  expect(drawn(6050)).toMatchObject([{ shape: 'rectangle' }]);
});
