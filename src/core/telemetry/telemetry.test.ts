import fc from 'fast-check';
import { findActivities } from './activity';
import { parsePointerTrack, PointerTrackError } from './parse';
import type { PointerTrack } from './pointer-track';
import { pointerAt, scaleTrack } from './sample';

const SIZE = { width: 1000, height: 500 };
const track = (more: Partial<PointerTrack>): PointerTrack => ({
  format: 'vistum-pointer',
  version: 1,
  ...SIZE,
  samples: [[0, 10, 10]],
  events: [],
  ...more,
});

test('JSON and CSV of the same path give the same track', () => {
  const samples = [
    [0, 1, 2],
    [16, 3, 4.5],
    [32, 9, 9],
  ] as const;
  const json = parsePointerTrack(
    JSON.stringify(track({ samples, events: [{ t: 16, type: 'down' }] })),
    SIZE,
  );
  const csv = parsePointerTrack('ms,x,y,event\n0,1,2,\n16,3,4.5,down\n32,9,9\n', SIZE);
  expect(csv).toEqual(json);
  expect(csv.notes).toEqual([]);
});

test('times that run backwards and places outside are mended, and it is said', () => {
  const { track: mended, notes } = parsePointerTrack('0,10,10\n50,2000,20\n30,-5,900\n', SIZE);
  expect(mended.samples).toEqual([
    [0, 10, 10],
    [30, 0, 499],
    [50, 999, 20],
  ]);
  expect(notes).toHaveLength(2);
});

test.each([
  ['', /no positions/],
  ['{"format":', /not valid JSON/],
  [
    '{"format":"vistum-pointer","version":1,"width":0,"height":5,"samples":[],"events":[]}',
    /not in the expected form/,
  ],
  ['0,abc,3', /three numbers/],
  ['hello\nworld', /three numbers/],
  ['0,1,2,explode', /unknown event/],
])('%j is refused with a sentence', (text, message) => {
  expect(() => parsePointerTrack(text, SIZE)).toThrow(PointerTrackError);
  expect(() => parsePointerTrack(text, SIZE)).toThrow(message);
});

test('the pointer is on the way between two samples and never outside them', () => {
  const t = track({
    samples: [
      [0, 0, 0],
      [100, 100, 50],
      [200, 100, 50],
    ],
  });
  expect(pointerAt(t, 50)).toEqual({ x: 50, y: 25 });
  expect(pointerAt(t, -10)).toEqual({ x: 0, y: 0 });
  expect(pointerAt(t, 999)).toEqual({ x: 100, y: 50 });
  fc.assert(
    fc.property(fc.double({ min: -1e4, max: 1e4, noNaN: true }), (ms) => {
      const { x, y } = pointerAt(t, ms);
      expect(x >= 0 && x <= 100 && y >= 0 && y <= 50).toBe(true);
    }),
  );
  expect(pointerAt(scaleTrack(t, 2000, 1000), 50)).toEqual({ x: 100, y: 50 });
});

test('presses, drags, typing, scrolling and rests are told apart', () => {
  const samples: [number, number, number][] = [];
  for (let ms = 0; ms <= 12000; ms += 20)
    samples.push([ms, ms < 3000 ? 100 : ms < 4000 ? 100 + (ms - 3000) / 4 : 350, 200]);
  const events = [
    { t: 1000, type: 'down' },
    { t: 1080, type: 'up' },
    { t: 2900, type: 'down' },
    { t: 4100, type: 'up' },
    ...[5000, 5150, 5300, 5420].map((t) => ({ t, type: 'key', key: 'a' })),
    ...[7000, 7100].map((t) => ({ t, type: 'wheel', dy: 40 })),
  ] as PointerTrack['events'];
  const found = findActivities(track({ samples, events }));
  expect(found.map((a) => a.kind)).toEqual(['press', 'drag', 'typing', 'scroll']);
  expect(found[1]!.right - found[1]!.left).toBeCloseTo(250, 0);
  expect(findActivities(track({ samples, events: [] })).map((a) => a.kind)).toEqual([
    'dwell',
    'dwell',
  ]);
});
