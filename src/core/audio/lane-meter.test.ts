import { LaneMeter, METER_WINDOW } from './lane-meter';
import type { SoundSegment, Stereo } from './mix';

const COUNT = METER_WINDOW * 4;

const segment = (change: Partial<SoundSegment>): SoundSegment => ({
  ...{ laneId: 'voice', clipId: 'a', footageId: 'f', start: 0, end: COUNT, source: 0 },
  ...{ speed: 1, gain: 1, fadeIn: 0, fadeOut: 0, envelope: [], ...change },
});
const constant = (count: number, left: number, right = left): Stereo => [
  new Float32Array(count).fill(left),
  new Float32Array(count).fill(right),
];

test('each lane has its own peaks, of the louder side, with its gain', () => {
  const meter = new LaneMeter(0, COUNT);
  meter.hear(segment({ gain: 0.5 }), constant(COUNT, 0.2, -0.8), 0);
  meter.hear(segment({ laneId: 'music', clipId: 'b' }), constant(COUNT, 0.1), 0);
  const { voice, music, ...none } = meter.peaks();
  expect([...voice!].map((v) => v.toFixed(4))).toEqual(['0.4000', '0.4000', '0.4000', '0.4000']);
  expect([...music!].map((v) => v.toFixed(4))).toEqual(['0.1000', '0.1000', '0.1000', '0.1000']);
  expect(none).toEqual({});
});

test('what plays at once on a lane adds up, and only where it is', () => {
  const meter = new LaneMeter(1000, COUNT);
  const half = { start: 1000, end: 1000 + METER_WINDOW * 2 };
  meter.hear(segment({ end: 9e9 }), constant(COUNT, 0.25), 1000);
  meter.hear(segment({ ...half, clipId: 'b' }), constant(METER_WINDOW * 2, 0.5), 1000);
  expect([...meter.peaks().voice!]).toEqual([0.75, 0.75, 0.25, 0.25]);
});

test('a level point that falls is seen to fall', () => {
  const meter = new LaneMeter(0, COUNT);
  const envelope = [
    [0, 0],
    [COUNT, -60],
  ] as const;
  meter.hear(segment({ envelope }), constant(COUNT, 1), 0);
  const peaks = [...meter.peaks().voice!];
  expect(peaks).toEqual([...peaks].sort((a, b) => b - a));
  expect(peaks[0]! / peaks[3]!).toBeGreaterThan(100);
});
