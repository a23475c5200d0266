import { PICTURE_FAMILY } from '@/compositor/font-parts';
import { planesOf, TILE, tilesOf } from '@/compositor/tiles';
import { readFileSync, truncateSync, writeFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import {
  frameDuration,
  framesPerSecond,
  rateFromNumber,
  secondsToTicks,
  ticksToSeconds,
} from '@/core/time/ticks';
import { frameBytes } from '@/kernels/planar';
import { ffmpeg, numberedFrames, scratchFolder } from '../testing/media';
import { FrameStream } from './frame-stream';
import { loadKernels, nodeRasterizer } from './node-host';
import { timingOf } from './frame-times';
import { probeMedia } from './probe';
import { mediaProblem } from './process';
import { SoundStream } from './sound-stream';

const folder = scratchFolder();
const file = (name: string) => join(folder, name);
const numbered = file('numbered.mp4');

beforeAll(() => {
  ffmpeg(
    ...numberedFrames(6, '30'),
    '-f',
    'lavfi',
    '-i',
    'sine=440:d=6',
    '-c:v',
    'libx264',
    '-g',
    '50',
    '-pix_fmt',
    'yuv420p',
    '-c:a',
    'aac',
    numbered,
  );
});

/** The number that a decoded frame carries. */
function numberOf(luma: Uint8Array, width: number): number {
  let number = 0;
  for (let bit = 0; bit < 12; bit++)
    if (luma[20 * width + bit * 40 + 20]! > 128) number += 2 ** bit;
  return number;
}

async function decodeNumbers(
  path: string,
  start: number,
  count: number,
  fps = 30,
): Promise<number[]> {
  const heap = await loadKernels();
  const { facts } = await probeMedia(path);
  const stream = new FrameStream(heap, path, facts, { start, rate: rateFromNumber(fps) });
  const numbers: number[] = [];
  for (let i = 0; i < count; i++) {
    const { picture } = stream.next(i % 2 === 1);
    numbers.push(numberOf(frameBytes(heap, picture), picture.width));
  }
  stream.close();
  return numbers;
}

describe('exact frames', () => {
  test.each([0, 1 / 30, 1.5, 1.5166, 50 / 30, 5.9])('from %f s on', async (start) => {
    const first = Math.floor(start * 30 + 0.061);
    const count = Math.min(6, 180 - first);
    expect(await decodeNumbers(numbered, start, count)).toEqual(
      Array.from({ length: count }, (_, i) => first + i),
    );
  });

  test('the last frame stays beyond the end', async () => {
    expect(await decodeNumbers(numbered, 5.9, 6)).toEqual([177, 178, 179, 179, 179, 179]);
  });

  test('comparing with the frame before changes nothing, and marks exactly the tiles that differ', async () => {
    const path = file('odd-moving.mkv');
    ffmpeg(
      '-f',
      'lavfi',
      '-i',
      'testsrc=s=421x203:r=30:d=0.3',
      '-c:v',
      'ffv1',
      '-pix_fmt',
      'yuv420p',
      path,
    );
    const heap = await loadKernels();
    const { facts } = await probeMedia(path);
    const open = () => new FrameStream(heap, path, facts, { start: 0, rate: rateFromNumber(30) });
    const [plain, comparing] = [open(), open()];
    const { across, down } = tilesOf(facts);
    let before: Uint8Array | null = null;
    for (let i = 0; i < 9; i++) {
      const want = frameBytes(heap, plain.next(false).picture).slice();
      const { picture, marks } = comparing.next(true);
      expect(Buffer.compare(frameBytes(heap, picture), want)).toBe(0);
      const differ = new Uint8Array(across * down);
      for (const [plane, by] of before ? planesOf(picture) : [])
        for (let at = 0; at < plane.width * plane.height; at++) {
          const offset = plane.at - picture.y.at + at;
          const [x, y] = [(at % plane.width) * by, Math.floor(at / plane.width) * by];
          if (want[offset] !== before![offset])
            differ[Math.floor(y / TILE.height) * across + Math.floor(x / TILE.width)] = 1;
        }
      if (before) expect([...heap.bytes(marks!, across * down)]).toEqual([...differ]);
      before = want;
    }
    plain.close();
    comparing.close();
  });

  test('at another rate each instant shows the frame that has begun by then', async () => {
    expect(await decodeNumbers(numbered, 2, 5, 60)).toEqual([60, 60, 61, 61, 62]);
    expect(await decodeNumbers(numbered, 2, 4, 15)).toEqual([60, 62, 64, 66]);
  });

  test('a varying frame rate is shown by its own times, also across a long still stretch', async () => {
    const path = file('varying.mkv');
    // Frames 0-29 at their times, then nothing until frame 120.
    ffmpeg(
      '-i',
      numbered,
      '-vf',
      "select='lt(n,30)+gte(n,120)'",
      '-fps_mode',
      'passthrough',
      '-an',
      '-c:v',
      'libx264',
      path,
    );
    expect(await decodeNumbers(path, 2.5, 3)).toEqual([29, 29, 29]);
    expect(await decodeNumbers(path, 3.9333, 4)).toEqual([29, 29, 120, 121]);
  });
});

test('sound begins at the sample that was asked for and is silent after its end', async () => {
  const path = file('click.wav');
  ffmpeg('-f', 'lavfi', '-i', "aevalsrc='if(eq(n,24000),1,0)':s=48000:d=1", path);
  const stream = new SoundStream(path, 23_900);
  const [left] = await stream.read(30_000);
  stream.close();
  expect(left.indexOf(Math.max(...left))).toBe(100);
  expect(left.slice(25_000).every((v) => v === 0)).toBe(true);
});

describe('what probing finds', () => {
  test('size, rate, length and sound of an ordinary recording', async () => {
    const { facts, notes } = await probeMedia(numbered);
    expect(facts).toMatchObject({
      kind: 'video',
      width: 640,
      height: 360,
      frameRate: { num: 30, den: 1 },
      variableRate: false,
      hasAudio: true,
    });
    // Not a tick less: the last frame would be lost.
    expect(facts.duration).toBe(secondsToTicks(6));
    expect(
      (await probeMedia('demo/media/presenter-take-1.mp4')).facts.duration %
        frameDuration(rateFromNumber(30)),
    ).toBe(0);
    expect(notes).toEqual([]);
  });

  test('a recording without length in its header, as browsers write', async () => {
    const path = file('live.webm');
    const bytes = ffmpeg(
      '-i',
      numbered,
      '-c:v',
      'libvpx',
      '-deadline',
      'realtime',
      '-cpu-used',
      '8',
      '-an',
      '-live',
      '1',
      '-f',
      'webm',
      'pipe:1',
    );
    writeFileSync(path, bytes);
    const { facts, notes } = await probeMedia(path);
    expect(ticksToSeconds(facts.duration)).toBeCloseTo(6, 1);
    expect(notes).toEqual(['It has no sound.']);
  });

  test('odd sides, rotation and a single frame', async () => {
    const odd = file('odd.mkv');
    ffmpeg(
      '-f',
      'lavfi',
      '-i',
      'testsrc=s=1023x577:r=30:d=0.2',
      '-c:v',
      'ffv1',
      '-pix_fmt',
      'yuv444p',
      odd,
    );
    expect((await probeMedia(odd)).facts).toMatchObject({ width: 1023, height: 577 });
    const heap = await loadKernels();
    const stream = new FrameStream(heap, odd, (await probeMedia(odd)).facts, {
      start: 0,
      rate: rateFromNumber(30),
    });
    expect(stream.next(false).picture.size).toBe(1023 * 577 + 2 * 512 * 289);
    stream.close();
    const turned = file('turned.mp4');
    ffmpeg('-i', numbered, '-c', 'copy', '-metadata:s:v', 'rotate=90', turned);
    expect((await probeMedia(turned)).facts).toMatchObject({ width: 360, height: 640 });
    const one = file('one.mp4');
    ffmpeg(
      '-f',
      'lavfi',
      '-i',
      'testsrc=s=320x240:r=30',
      '-frames:v',
      '1',
      '-pix_fmt',
      'yuv420p',
      one,
    );
    expect(ticksToSeconds((await probeMedia(one)).facts.duration)).toBeCloseTo(1 / 30, 3);
  });

  test('mono sound at 44.1 kHz', async () => {
    const path = file('mono.wav');
    ffmpeg('-f', 'lavfi', '-i', 'sine=440:r=44100:d=2', '-ac', '1', path);
    expect((await probeMedia(path)).facts).toMatchObject({
      kind: 'audio',
      channels: 1,
      sampleRate: 44100,
      hasVideo: false,
    });
  });

  test('timing of frames with rounded, dropped and single times', () => {
    const at = (n: number, fps: number) =>
      Array.from({ length: n }, (_, i) => Math.round((i / fps) * 1000) / 1000);
    expect(timingOf(at(300, 30), 0.033)).toMatchObject({
      rate: { num: 30, den: 1 },
      variable: false,
    });
    expect(framesPerSecond(timingOf(at(300, 30000 / 1001), 0.033).rate)).toBeCloseTo(29.97, 2);
    expect(timingOf([0, 0.033, 0.5, 0.533, 1.4], 0.033).variable).toBe(true);
    expect(timingOf([0], 0)).toMatchObject({ count: 1, variable: false });
  });
});

describe('files that can’t be used are refused with a sentence', () => {
  const refused = (path: string) =>
    probeMedia(path).then(
      () => 'accepted',
      (e: Error) => e.message,
    );

  test('text named .mp4, a playlist, a cut-off file', async () => {
    writeFileSync(file('text.mp4'), 'This is not a video.\n'.repeat(50));
    expect(await refused(file('text.mp4'))).toMatch(/not a video, sound or picture file/);
    writeFileSync(
      file('list.mp4'),
      `#EXTM3U\n#EXT-X-TARGETDURATION:6\n#EXTINF:6,\n${numbered}\n#EXT-X-ENDLIST\n`,
    );
    expect(await refused(file('list.mp4'))).not.toBe('accepted');
    writeFileSync(file('concat.mp4'), `ffconcat version 1.0\nfile '${numbered}'\n`);
    expect(await refused(file('concat.mp4'))).not.toBe('accepted');
    writeFileSync(file('cut.mp4'), readFileSync(numbered));
    truncateSync(file('cut.mp4'), statSync(numbered).size / 2);
    expect(await refused(file('cut.mp4'))).toMatch(/incomplete/);
  });

  test('a cut-off file with its index in front is taken for what is there, and it is said', async () => {
    const path = file('front.mp4');
    ffmpeg('-i', numbered, '-c', 'copy', '-movflags', '+faststart', path);
    truncateSync(path, statSync(path).size >> 1);
    const { facts, notes } = await probeMedia(path);
    expect(ticksToSeconds(facts.duration)).toBeLessThan(5.5);
    expect(notes.join(' ')).toMatch(/cut off/);
  });

  test('a full disk and missing FFmpeg have sentences of their own', () => {
    expect(mediaProblem('av_interleaved_write_frame(): No space left on device').message).toMatch(
      /disk is full/,
    );
    expect(mediaProblem('Error: spawn ffmpeg ENOENT').message).toMatch(/not installed/);
  });
});

test('signs of languages with thousands of them, and pictures in colours, are drawn once they are asked for', async () => {
  const rasterizer = await nodeRasterizer();
  const inkOf = (text: string) => {
    const font = `600 40px ${rasterizer.family(text)}`;
    const pixels = rasterizer.draw(80, 60, (pen) => {
      pen.font = font;
      pen.fillStyle = '#000000';
      pen.textBaseline = 'alphabetic';
      pen.fillText(text, 6, 46);
    });
    const rows = Array.from({ length: pixels.length / 4 }, (_, i) => i).filter(
      (i) => pixels[i * 4 + 3]! > 20,
    );
    const colors = rows.filter(
      (i) =>
        Math.max(...pixels.slice(i * 4, i * 4 + 3)) - Math.min(...pixels.slice(i * 4, i * 4 + 3)) >
        60,
    );
    return { text: rows.join(), colored: colors.length };
  };
  // Signs that no part has look all the same: a box.
  const signs = ['窑', '炉', 'の', 'ヴ', '가', '훽', '、', 'ก'];
  await rasterizer.ready({ stills: [], words: [...signs, '😀'] });
  const drawn = signs.map((sign) => inkOf(sign).text);
  expect(new Set(drawn).size).toBe(signs.length);
  expect(drawn).not.toContain(inkOf('\u{10ffff}').text);
  expect(inkOf('😀').colored).toBeGreaterThan(200);
  // The same sign is another one in a Japanese text.
  await rasterizer.ready({ stills: [], words: ['骨の'] });
  expect(rasterizer.family('骨の')).toMatch(/japanese/);
  expect(rasterizer.family('骨')).toMatch(/chinese/);
  expect(rasterizer.family('Kiln 7 °C: כבשן')).toBe(PICTURE_FAMILY);
});

test('letters beyond the first part of the typeface are drawn in it, not in boxes', async () => {
  const { measure, draw } = await nodeRasterizer();
  const font = `600 40px ${PICTURE_FAMILY}`;
  const dark = (text: string) => {
    const pixels = draw(60, 60, (pen) => {
      pen.font = font;
      pen.fillStyle = '#000000';
      pen.textBaseline = 'alphabetic';
      pen.fillText(text, 6, 46);
    });
    let sum = 0;
    for (let i = 3; i < pixels.length; i += 4) sum += pixels[i]!;
    return { sum, text: pixels.toString() };
  };
  // A letter and the same with a sign have about the same width, and differ by the sign only.
  for (const [plain, marked] of [
    ['o', 'ő'],
    ['L', 'Ł'],
    ['s', 'š'],
  ] as const) {
    expect(Math.abs(measure(font, marked) / measure(font, plain) - 1)).toBeLessThan(0.12);
    expect(dark(marked).text).not.toBe(dark(plain).text);
    expect(dark(marked).sum).toBeGreaterThan(dark(plain).sum);
    expect(dark(marked).sum).toBeLessThan(dark(plain).sum * 1.6);
  }
});
