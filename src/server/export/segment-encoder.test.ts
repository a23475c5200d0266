import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { rateFromNumber } from '@/core/time/ticks';
import { ffmpeg, numberedFrames, readNumbers, scratchFolder } from '../testing/media';
import { SegmentEncoder } from './segment-encoder';
import { DEFAULT_SETTINGS } from './settings';

const folder = scratchFolder();
const [width, height] = [640, 360];
const size = (width * height * 3) / 2;
let pictures: Buffer;

beforeAll(() => {
  pictures = ffmpeg(
    ...numberedFrames(4, '30', `${width}x${height}`),
    '-pix_fmt',
    'yuv420p',
    '-f',
    'rawvideo',
    '-',
  );
});

const segment = (first: number, last: number, keyFrames: number[] = []) => ({
  path: join(folder, `segment-${first}.mp4`),
  first,
  last,
  keyFrames,
});
const encoder = () =>
  new SegmentEncoder({ ...DEFAULT_SETTINGS, width, height, frameRate: rateFromNumber(30) }, 1);

async function encode(into: SegmentEncoder, segments: readonly ReturnType<typeof segment>[]) {
  for (const [i, each] of segments.entries()) {
    await into.begin(each, segments.slice(i + 1));
    for (let n = each.first; n < each.last; n++)
      into.write(pictures.subarray(n * size, (n + 1) * size));
  }
  await into.finish();
}

const count = (first: number, last: number) =>
  Array.from({ length: last - first }, (_, i) => first + i);

test('each segment has its own pictures and begins anew, with neighbours before it and without', async () => {
  // Key frames within a segment do not cut it; 90 to 100 is there already.
  const segments = [
    segment(0, 30, [20]),
    segment(30, 60),
    segment(60, 90, [70, 75]),
    segment(100, 115),
  ];
  await encode(encoder(), segments);
  for (const { path, first, last } of segments)
    expect(readNumbers(path)).toEqual(count(first, last));
  expect(readdirSync(folder).sort()).toEqual(
    segments.map(({ first }) => `segment-${first}.mp4`).sort(),
  );
});

test('what is given up leaves only what was whole', async () => {
  const before = readdirSync(folder);
  const given = encoder();
  await given.begin(segment(40, 80), [segment(80, 120)]);
  for (let n = 40; n < 60; n++) given.write(pictures.subarray(n * size, (n + 1) * size));
  given.close();
  expect(readdirSync(folder)).toEqual(before);
});
