import fc from 'fast-check';
import type { PointerTrack } from '../telemetry/pointer-track';
import { isOf } from '../schema/check-plain';
import { SightSoFarSchema, soFarOf } from './so-far';

const SIZE = { width: 1280, height: 720 };
const track: PointerTrack = {
  ...{ format: 'vistum-pointer', version: 2, width: 1280, height: 720, inPicture: true },
  samples: [
    [0, 0, 0, 1],
    [10_000, 1280, 720, 1],
  ],
  hidden: [[5000, 7500]],
  events: [
    { t: 2000, type: 'down', button: 0, confidence: 0.7 },
    { t: 2090, type: 'up', button: 0, confidence: 0.7 },
  ],
};

test('what was found so far: the path in parts of the screen, where it is hidden, presses', () => {
  const found = soFarOf(track, 10_000, SIZE);
  expect(found.pointer).toBeCloseTo(0.75);
  expect(found.presses).toEqual([[200, 200]]);
  expect(found.path).toHaveLength(100);
  expect(found.path[0]).toEqual([5, 5]);
  expect(found.path.filter((place) => place === null)).toHaveLength(25);
  expect(soFarOf(null, 4000, SIZE)).toEqual({ until: 4000, pointer: 0, path: [], presses: [] });
});

test('it stays small however long the recording is', () => {
  fc.assert(
    fc.property(fc.double({ min: 0, max: 8 * 3.6e6, noNaN: true }), (until) => {
      const found = soFarOf(track, until, SIZE);
      expect(isOf(SightSoFarSchema, found)).toBe(true);
      expect(JSON.stringify(found).length).toBeLessThan(4000);
    }),
  );
});
