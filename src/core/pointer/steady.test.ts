import fc from 'fast-check';
import type { PointerSample, PointerTrack } from '../telemetry/pointer-track';
import { pointerAt } from '../telemetry/sample';
import { steadiedAt, steadyTolerance } from './steady';

const STEP = 16;

function track(samples: readonly PointerSample[], presses: readonly number[] = []): PointerTrack {
  const events = presses.flatMap((t) => [
    { t, type: 'down' as const },
    { t: t + 80, type: 'up' as const },
  ]);
  return {
    ...{ format: 'vistum-pointer', version: 1, width: 1920, height: 1080 },
    ...{ samples, events },
  };
}

/** Wanders over the screen with a trembling hand, at rest for a while here and there. */
const wandering = fc
  .record({
    spots: fc.array(fc.tuple(fc.nat(1900), fc.nat(1000), fc.integer({ min: 5, max: 40 })), {
      minLength: 2,
      maxLength: 6,
    }),
    shake: fc.double({ min: 0, max: 4, noNaN: true }),
    presses: fc.array(fc.nat(2500), { maxLength: 4 }),
  })
  .map(({ spots, shake, presses }) => {
    const samples: PointerSample[] = [];
    let [x, y] = [960, 540];
    for (const [toX, toY, wait] of spots) {
      for (let i = 0; i < 30 + wait; i++) {
        const u = Math.min(1, i / 30);
        const n = samples.length;
        samples.push([
          n * STEP,
          x + (toX - x) * u + shake * Math.sin(n * 1.7),
          y + (toY - y) * u + shake * Math.cos(n * 2.3),
        ]);
      }
      [x, y] = [toX, toY];
    }
    return track(
      samples,
      [...presses].sort((a, b) => a - b),
    );
  });

const strength = fc.double({ min: 0.05, max: 1, noNaN: true });

test('no press is moved, and nothing is far from where it was', () => {
  fc.assert(
    fc.property(wandering, strength, (t, s) => {
      for (const { t: ms } of t.events) {
        const [real, steadied] = [pointerAt(t, ms), steadiedAt(t, s, ms)];
        expect(Math.hypot(real.x - steadied.x, real.y - steadied.y)).toBeLessThanOrEqual(0.5);
      }
      const last = t.samples.at(-1)![0];
      for (let ms = 0; ms <= last; ms += 40) {
        const [real, steadied] = [pointerAt(t, ms), steadiedAt(t, s, ms)];
        // Standing still, straight on, and rounding between knots: each within a tolerance or so.
        expect(Math.hypot(real.x - steadied.x, real.y - steadied.y)).toBeLessThanOrEqual(
          4 * steadyTolerance(t, s) + 0.5,
        );
      }
    }),
  );
});

test('a pointer that only fidgets stands still', () => {
  const samples = Array.from({ length: 200 }, (_, i): PointerSample => [
    i * STEP,
    500 + 2 * Math.sin(i * 1.3),
    300 + 2 * Math.cos(i * 2.9),
  ]);
  const fidgets = track(samples);
  const places = samples.map(([ms]) => steadiedAt(fidgets, 0.6, ms));
  expect(new Set(places.map(({ x, y }) => `${x.toFixed(6)} ${y.toFixed(6)}`)).size).toBe(1);
});

test('a corner is not cut, and a straight way stays straight', () => {
  const corner = track(
    Array.from({ length: 121 }, (_, i): PointerSample => {
      const u = i / 60;
      return [i * STEP, 200 + 600 * Math.min(1, u), 200 + 400 * Math.max(0, u - 1)];
    }),
  );
  const { x, y } = steadiedAt(corner, 1, 60 * STEP);
  expect(Math.hypot(x - 800, y - 200)).toBeLessThan(1);
  for (let i = 5; i < 55; i++)
    expect(Math.abs(steadiedAt(corner, 1, i * STEP).y - 200)).toBeLessThan(0.01);
});

test('without strength the track is as it was', () => {
  const any = track([
    [0, 1, 2],
    [100, 7, 9],
  ]);
  expect(steadiedAt(any, 0, 50)).toEqual({ x: 4, y: 5.5 });
});

test('an hour of trembling is steadied in moderate time, whatever it looks like', () => {
  const long = track(
    Array.from({ length: 216_000 }, (_, i): PointerSample => [
      i * STEP,
      900 + 300 * Math.sin(i / 90) + (i % 3),
      500 + (i % 5),
    ]),
  );
  expect(Number.isFinite(steadiedAt(long, 0.5, 1_800_000).x)).toBe(true);
});
