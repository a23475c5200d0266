import fc from 'fast-check';
import { counter, emptyProject, SOURCES } from '@/core/edit/fixture';
import { placeFootage } from '@/core/edit/place';
import { frameDuration, frameStart, secondsToTicks } from '@/core/time/ticks';
import { rulerStep } from './geometry';
import { snapDelta, snapPoints } from './snap';

const RATE = { num: 30, den: 1 };
const second = secondsToTicks(1);

test('an edge within reach of a point meets it, whichever edge it is', () => {
  expect(snapDelta([0, second], second * 1.02, [second * 2], second * 0.05, RATE)).toBe(second);
  expect(snapDelta([0, second], second * 0.97, [second], second * 0.05, RATE)).toBe(second);
});

test('without a point in reach the first edge lies on a frame', () => {
  fc.assert(
    fc.property(fc.nat(10_000), fc.integer({ min: -1e10, max: 1e10 }), (start, delta) => {
      const edge = frameStart(start, RATE);
      const moved = edge + snapDelta([edge], delta, [], -1, RATE);
      expect(Math.abs(moved % frameDuration(RATE))).toBe(0);
      expect(Math.abs(moved - edge - delta)).toBeLessThanOrEqual(frameDuration(RATE) / 2);
    }),
  );
});

test('points are the ends of everything but what is dragged, steps, the playhead and the start', () => {
  const project = emptyProject();
  placeFootage(project, SOURCES.footage.music!, 0, counter());
  project.steps.push({ id: 's', start: 77, title: '', narration: '', action: '', notes: '' });
  expect(snapPoints(project, 5, new Set()).sort((a, b) => a - b)).toEqual([
    0,
    5,
    77,
    secondsToTicks(90),
  ]);
  expect(snapPoints(project, 5, new Set([project.lanes[3]!.clips[0]!.id]))).not.toContain(
    secondsToTicks(90),
  );
});

test('labels of the ruler stand apart at every scale', () => {
  for (const scale of [0.5, 1, 3, 12, 80, 400])
    expect(rulerStep(scale) * scale >= 70 || rulerStep(scale) === 3600).toBe(true);
});
