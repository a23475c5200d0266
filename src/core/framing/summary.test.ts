import type { Framing } from '../project/model';
import { secondsToTicks } from '../time/ticks';
import { summarise } from './summary';

const framing = (start: number, end: number, rampIn: number, rampOut: number): Framing => ({
  ...{ id: `${start}`, start: secondsToTicks(start), end: secondsToTicks(end) },
  ...{ rampIn: secondsToTicks(rampIn), rampOut: secondsToTicks(rampOut) },
  ...{ footageId: 'screen', rect: { x: 0, y: 0, width: 640, height: 360 } },
  ...{ endRect: null, pinned: false, reason: '' },
});

test('each framing is moved into, and out of where it leads to no other and does not end at once', () => {
  expect(summarise([], 60)).toEqual({ count: 0, movesAMinute: 0, shortest: Infinity });
  // In, over, out; then in, and left at once with the recording.
  const all = [framing(5, 12, 1, 1), framing(12, 20, 1, 1), framing(30, 40, 1, 0)];
  const { count, movesAMinute, shortest } = summarise(all, 120);
  expect([count, movesAMinute]).toEqual([3, 2]);
  // The first rests up to the second's move.
  expect(shortest).toBeCloseTo(6, 9);
});
