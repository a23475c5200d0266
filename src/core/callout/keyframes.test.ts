import fc from 'fast-check';
import { checkOf } from '../schema/check';
import {
  AS_IT_IS,
  dropping,
  isPlain,
  keeping,
  mappedKeyframes,
  poseAt,
  Keyframe,
  startingLater,
  UNPOSED,
  withPose,
  type Posed,
} from './keyframes';

const NEAR = 5;
const pose = fc.record({
  dx: fc.integer({ min: -500, max: 500 }),
  dy: fc.integer({ min: -500, max: 500 }),
  size: fc.double({ min: 0.1, max: 10, noNaN: true }),
  turn: fc.integer({ min: -360, max: 360 }),
  opacity: fc.double({ min: 0, max: 1, noNaN: true }),
});
const posed: fc.Arbitrary<Posed> = fc
  .tuple(pose, fc.uniqueArray(fc.nat(1000), { maxLength: 6 }), fc.array(pose, { minLength: 6 }))
  .map(([first, times, poses]) => ({
    pose: first,
    keyframes: times.sort((a, b) => a - b).map((at, i) => ({ at: at * 20, ...poses[i]! })),
  }));
const instant = fc.integer({ min: -100, max: 21_000 });

test('it is in each pose where that is kept, rests before the first and after the last', () => {
  fc.assert(
    fc.property(posed, (one) => {
      for (const { at, ...kept } of one.keyframes) expect(poseAt(one, at)).toEqual(kept);
      const [first, last] = [one.keyframes[0], one.keyframes.at(-1)];
      if (!first || !last) return expect(poseAt(one, 77)).toEqual(one.pose);
      expect(poseAt(one, first.at - 50)).toEqual(poseAt(one, first.at));
      expect(poseAt(one, last.at + 50)).toEqual(poseAt(one, last.at));
    }),
  );
});

test('between two it never leaves what lies between them, and never jumps', () => {
  fc.assert(
    fc.property(posed, instant, (one, at) => {
      const next = one.keyframes.findIndex((k) => k.at > at);
      const [a, b] = [one.keyframes[next - 1], one.keyframes[next]];
      if (!a || !b) return;
      const now = poseAt(one, at);
      for (const key of ['dx', 'dy', 'size', 'turn', 'opacity'] as const) {
        expect(now[key]).toBeGreaterThanOrEqual(Math.min(a[key], b[key]) - 1e-9);
        expect(now[key]).toBeLessThanOrEqual(Math.max(a[key], b[key]) + 1e-9);
      }
      // The steepest slope of the course is half as much again as the way over the time.
      const steepest = (1.5 * Math.abs(b.dx - a.dx)) / (b.at - a.at);
      expect(Math.abs(poseAt(one, at + 1).dx - now.dx)).toBeLessThanOrEqual(steepest + 1e-6);
    }),
  );
});

test('keeping changes nothing of what is seen there, and does so once', () => {
  fc.assert(
    fc.property(posed, instant, (one, at) => {
      const kept = keeping(one, at, NEAR);
      expect(poseAt(kept, at)).toEqual(poseAt(one, at));
      expect(keeping(kept, at, NEAR)).toEqual(kept);
      expect(kept.keyframes.length - one.keyframes.length).toBeLessThanOrEqual(1);
      const times = kept.keyframes.map((k) => k.at);
      expect(times).toEqual([...new Set(times)].sort((a, b) => a - b));
    }),
  );
});

test('a change holds throughout, or at its instant where poses are kept', () => {
  const all = withPose(UNPOSED, 500, { turn: 45 }, NEAR);
  expect([0, 500, 900].map((at) => poseAt(all, at).turn)).toEqual([45, 45, 45]);
  const kept = withPose(keeping(UNPOSED, 100, NEAR), 500, { dx: 80 }, NEAR);
  expect(kept.keyframes.map((k) => [k.at, k.dx])).toEqual([
    [100, 0],
    [500, 80],
  ]);
  // Half a frame beside it, it is the same instant.
  expect(withPose(kept, 503, { dx: 90 }, NEAR).keyframes.map((k) => k.dx)).toEqual([0, 90]);
});

test('the last one that is dropped holds throughout', () => {
  const kept = withPose(keeping(UNPOSED, 100, NEAR), 500, { dx: 80, size: 2 }, NEAR);
  const one = dropping(kept, 100);
  expect(one.keyframes).toHaveLength(1);
  const none = dropping(one, 500);
  expect(none).toEqual({ pose: { ...AS_IT_IS, dx: 80, size: 2 }, keyframes: [] });
  expect(dropping(none, 3)).toEqual(none);
  expect(isPlain(none.pose)).toBe(false);
  expect(isPlain(UNPOSED.pose)).toBe(true);
});

test('poses stay at their instants when the start moves, and go along when time is mapped', () => {
  fc.assert(
    fc.property(posed, fc.integer({ min: -300, max: 300 }), instant, (one, by, at) => {
      const later = { ...one, keyframes: startingLater(one.keyframes, by) };
      expect(poseAt(later, at - by)).toEqual(poseAt(one, at));
    }),
  );
  const keyframes = [10, 40, 90].map((at) => ({ at, ...AS_IT_IS, dx: at }));
  // What lay between 130 and 150 of the timeline was taken out.
  const cut = (time: number) => (time <= 130 ? time : Math.max(130, time - 20));
  expect(mappedKeyframes(keyframes, 100, 100, cut).map((k) => [k.at, k.dx])).toEqual([
    [10, 10],
    [30, 40],
    [70, 90],
  ]);
  const all = (time: number) => (time <= 100 ? time : Math.max(100, time - 60));
  expect(mappedKeyframes(keyframes, 100, 100, all).map((k) => [k.at, k.dx])).toEqual([
    [0, 40],
    [30, 90],
  ]);
});

test('what is kept is sound', () => {
  const check = checkOf(Keyframe);
  fc.assert(
    fc.property(posed, instant, (one, at) => {
      for (const kept of keeping(one, at, NEAR).keyframes)
        expect(check(kept)).toHaveProperty('value');
    }),
  );
});
