import type { Found } from '@/core/vision/pointer-path';
import { lostAfterAll, runsOf } from './runs';

const HERE: Found = { at: { look: 0, x: 9, y: 9, misfit: 0 }, confidence: 1 };
const LOST: Found = { at: null, confidence: 1 };

test('stretches that seemed to be seen at first are told whole; those lost at once are not', () => {
  const path = [...'..xxxxx...xxxx..x'].map((mark) => (mark === 'x' ? LOST : HERE));
  const seen = [...'..ss.....ss.....s'].map((mark) => mark === 's');
  expect([...lostAfterAll(seen, path)]).toEqual([2, 3, 4, 5, 6]);
});

test('runs have some pictures around, within the recording, and near ones are one', () => {
  const wanted = new Set([5, 100, 160, 400, 990]);
  expect(runsOf(1000, (i) => wanted.has(i))).toEqual([
    { from: 0, to: 25 },
    { from: 80, to: 180 },
    { from: 380, to: 420 },
    { from: 970, to: 1000 },
  ]);
});
