import { execFileSync } from 'node:child_process';
import { rmSync } from 'node:fs';
import type { ExportSettings } from '@/contract/exports';
import { FORMAT_FACTS, type Format } from '@/core/project/export-formats';
import { rateFromNumber } from '@/core/time/ticks';
import { control, file, makeCounted, settings, taskOf } from '../testing/export';
import { ffmpeg, readNumbers } from '../testing/media';
import { exportFile } from './export-file';

beforeAll(makeCounted);
afterAll(() => rmSync(file(''), { recursive: true, force: true }));

const range = { start: 2, end: 3 };
const streams = (path: string) =>
  (
    JSON.parse(
      execFileSync('ffprobe', ['-v', 'error', '-show_streams', '-of', 'json', path]).toString(),
    ) as {
      streams: Record<string, string>[];
    }
  ).streams;
const make = async (format: Format, more: Partial<ExportSettings> = {}) => {
  const target = file(`format-${format}.${FORMAT_FACTS[format].extension}`);
  const wanted = { ...settings, width: 640, height: 360, format, range, ...more };
  const task = {
    ...(await taskOf({ 'counted.mp4': 'screen' })),
    output: wanted,
    rate: wanted.frameRate,
  };
  // Computer sound is muted when it comes with a screen recording.
  for (const lane of task.project.lanes) lane.off = false;
  return {
    result: await exportFile(task, wanted, file(`work-${format}`), target, control()),
    target,
  };
};

test.each([
  ['mov', 'h264', 'aac'],
  ['webm', 'vp9', 'opus'],
  ['av1', 'av1', 'opus'],
] as const)('%s has the frames, the colours and the sound', async (format, picture, sound) => {
  const { result, target } = await make(format);
  expect(streams(target)).toMatchObject([
    { codec_name: picture, width: 640, height: 360, color_space: 'bt709' },
    { codec_name: sound },
  ]);
  expect(result).toMatchObject({ frames: 30, duration: 1 });
  expect(readNumbers(target, 0.5)).toEqual(Array.from({ length: 30 }, (_, i) => 60 + i));
});

test('GIF moves and has no sound', async () => {
  const { target } = await make('gif', { frameRate: rateFromNumber(10) });
  const found = streams(target);
  expect(found).toMatchObject([{ codec_name: 'gif', width: 640, nb_frames: '10' }]);
  expect(found).toHaveLength(1);
});

test.each([
  ['m4a', 'aac'],
  ['mp3', 'mp3'],
  ['wav', 'pcm_s16le'],
] as const)('%s is sound only, its click in place', async (format, codec) => {
  const { result, target } = await make(format);
  expect(streams(target)).toMatchObject([{ codec_name: codec, sample_rate: '48000' }]);
  expect(result).toMatchObject({ frames: 0, duration: 1 });
  const pcm = ffmpeg('-i', target, '-ac', '1', '-ar', '48000', '-f', 'f32le', '-');
  const sound = new Float32Array(pcm.buffer.slice(pcm.byteOffset, pcm.byteOffset + pcm.length));
  const loudest = sound.reduce(
    (best, v, i) => (Math.abs(v) > Math.abs(sound[best]!) ? i : best),
    0,
  );
  expect(loudest).toBeLessThan(200);
});

test('PNG is one picture, at the start of the range', async () => {
  const { result, target } = await make('png');
  expect(streams(target)).toMatchObject([{ codec_name: 'png', width: 640, height: 360 }]);
  expect(result.frames).toBe(1);
  expect(readNumbers(target, 0.5)).toEqual([60]);
});

test('a bit rate is kept within a third', async () => {
  const { target } = await make('mp4', { bitRate: 0.5, range: { start: 0, end: 12 } });
  const rate = Number(streams(target)[0]!.bit_rate);
  expect(rate).toBeLessThan(0.5e6 * 1.34);
});
