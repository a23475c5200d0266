import { execFileSync } from 'node:child_process';
import { chmodSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ffmpeg, numberedFrames, scratchFolder } from '../testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = join(folder, 'data');

import { createClip, createProject } from '@/core/project/create';
import { rateFromNumber, secondsToTicks } from '@/core/time/ticks';
import { closeDatabase } from '../db/connection';
import { exportFile } from '../export/export-file';
import type { RenderTask } from '../export/render-frames';
import { DEFAULT_SETTINGS } from '../export/settings';
import { addFootage } from '../footage/add';
import { footageFolder } from '../testing/stored';
import { completeJob } from '../jobs/complete';
import { newProject } from '../projects';
import { probeMedia } from './probe';
import { mediaProblem, runMedia } from './process';
import { localContext, type ServerContext } from '../context';

let context: ServerContext;
beforeAll(async () => {
  context = await localContext();
});

const file = (name: string) => join(folder, name);
const never = new AbortController().signal;
let project = '';
beforeAll(async () => {
  project = await newProject(context, 'Limits', 1280, 720, rateFromNumber(30));
});
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

/** What becomes of a file that is brought: its row, and the sentence when it was refused. */
async function bring(name: string) {
  const { footage } = context.db;
  const { footageId, jobId } = await addFootage(context, {
    projectId: project,
    path: file(name),
    name,
    role: null,
    take: false,
  });
  const said = await completeJob(context, jobId, never).then(
    () => null,
    (error: Error) => error.message,
  );
  return {
    said,
    row: (await footage.findByPk(footageId))!,
    folder: footageFolder(footageId),
  };
}
const lengthOf = (path: string) =>
  Number(
    execFileSync('ffprobe', [
      '-v',
      'error',
      '-show_entries',
      'format=duration',
      '-of',
      'csv=p=0',
      path,
    ]),
  );

/** A WAV file of 16-bit silence at any rate. */
function wav(name: string, rate: number, samples: number) {
  const bytes = Buffer.alloc(44 + samples * 2);
  bytes.write('RIFF', 0);
  bytes.writeUInt32LE(36 + samples * 2, 4);
  bytes.write('WAVEfmt ', 8);
  bytes.writeUInt32LE(16, 16);
  bytes.writeUInt16LE(1, 20);
  bytes.writeUInt16LE(1, 22);
  bytes.writeUInt32LE(rate, 24);
  bytes.writeUInt32LE(rate * 2, 28);
  bytes.writeUInt16LE(2, 32);
  bytes.writeUInt16LE(16, 34);
  bytes.write('data', 36);
  bytes.writeUInt32LE(samples * 2, 40);
  writeFileSync(file(name), bytes);
}

describe('files that once stopped the rest', () => {
  test('a few pictures over ten hours are prepared at once, and keep their times', async () => {
    ffmpeg(
      ...['-f', 'lavfi', '-i', 'testsrc=s=320x240:r=30', '-frames:v', '3'],
      ...['-vf', 'setpts=N*18000/TB', '-fps_mode', 'passthrough'],
      ...['-c:v', 'libx264', '-pix_fmt', 'yuv420p', file('sparse.mkv')],
    );
    const began = Date.now();
    const { said, row, folder: made } = await bring('sparse.mkv');
    expect([said, row.status]).toEqual([null, 'ready']);
    expect(JSON.parse(row.facts!)).toMatchObject({ frames: 3 });
    expect(lengthOf(join(made, 'proxy.mp4'))).toBeGreaterThan(30_000);
    const frames = ffmpeg('-i', join(made, 'proxy.mp4'), '-f', 'framecrc', '-').toString();
    expect(frames.split('\n').filter((line) => /^\d/.test(line)).length).toBeLessThan(10);
    // The copy at a steady rate, of a million pictures, took the better part of an hour.
    expect(Date.now() - began).toBeLessThan(60_000);
  });

  test('a sound of one sample a second is refused before anything resamples it', async () => {
    wav('one-hertz.wav', 1, 1000);
    expect((await bring('one-hertz.wav')).said).toMatch(/1 samples a second/);
  });

  test('a drawing that takes for ever is given up, while the worker’s own thread goes on', async () => {
    process.env.VISTUM_MAX_DRAWING_SECONDS = '3';
    const path = (i: number) =>
      `<path d="M${i % 2000} 0C500 ${i % 1999} 1500 ${i % 1777} ${i % 1888} 2000" stroke="red" stroke-width="9" fill="none" stroke-dasharray="3 2"/>`;
    writeFileSync(
      file('strokes.svg'),
      `<svg xmlns="http://www.w3.org/2000/svg" width="2000" height="2000">${Array.from({ length: 60_000 }, (_, i) => path(i)).join('')}</svg>`,
    );
    let beats = 0;
    const timer = setInterval(() => beats++, 50);
    const { said, row } = await bring('strokes.svg');
    clearInterval(timer);
    delete process.env.VISTUM_MAX_DRAWING_SECONDS;
    expect(said).toMatch(/too elaborate/);
    expect(row.status).toBe('failed');
    expect(beats).toBeGreaterThan(30);
  });

  test('more memory than one file may have is refused with a sentence', async () => {
    ffmpeg(
      ...['-f', 'lavfi', '-i', 'testsrc=s=8192x4096:r=25:d=0.2', '-c:v', 'libx264'],
      ...['-preset', 'ultrafast', '-pix_fmt', 'yuv420p', file('huge.mp4')],
    );
    process.env.VISTUM_MAX_MEDIA_MEMORY = String(100 << 20);
    const { said } = await bring('huge.mp4');
    process.env.VISTUM_MAX_MEDIA_MEMORY = '';
    expect(said).toMatch(/more memory than the 100 MB/);
    expect((await bring('huge.mp4')).said).toBeNull();
  });

  test('more pictures, or more hours, than one recording may have are refused', async () => {
    ffmpeg(...numberedFrames(2, '30'), '-c:v', 'libx264', file('short.mp4'));
    process.env.VISTUM_MAX_FRAMES = '50';
    expect((await bring('short.mp4')).said).toMatch(/more than 50 pictures/);
    delete process.env.VISTUM_MAX_FRAMES;
    process.env.VISTUM_MAX_HOURS = '0.0001';
    expect((await bring('short.mp4')).said).toMatch(/longer than/);
    delete process.env.VISTUM_MAX_HOURS;
  });
});

describe('odd files that work', () => {
  const test1 = (name: string, args: string[], facts: object) =>
    test(name, async () => {
      ffmpeg(...args, file(name));
      const { said, row } = await bring(name);
      expect([said, row.status]).toEqual([null, 'ready']);
      expect(JSON.parse(row.facts!)).toMatchObject(facts);
    });
  const source = (size: string, seconds: number) => [
    ...['-f', 'lavfi', '-i', `testsrc=s=${size}:r=25:d=${seconds}`, '-pix_fmt', 'yuv420p'],
  ];
  const two = { duration: secondsToTicks(2), frameRate: { num: 25, den: 1 } };
  // AVI has no times of showing; with reordered frames those of decoding are all there is.
  test1('reordered.avi', [...source('320x240', 2), '-c:v', 'mpeg4', '-bf', '2'], two);
  test1('tall.mp4', [...source('16x8192', 1), '-c:v', 'libx264'], { width: 16, height: 8192 });
  test1('wide.mp4', [...source('8192x16', 1), '-c:v', 'libx264'], { width: 8192, height: 16 });
  test1('two-pixels.mkv', [...source('2x2', 1), '-c:v', 'ffv1'], { width: 2 });
  test1(
    'before-zero.mkv',
    [
      ...source('320x240', 2),
      ...['-c:v', 'libx264', '-output_ts_offset', '-5', '-avoid_negative_ts', 'disabled'],
    ],
    two,
  );
  test1('late.mkv', [...source('320x240', 2), '-c:v', 'mpeg4', '-output_ts_offset', '1000'], two);

  test('a recording that begins late is not said to be cut off', async () => {
    expect((await probeMedia(file('late.mkv'))).notes).toEqual(['It has no sound.']);
  });
});

test('what FFmpeg says is told without paths and addresses', () => {
  for (const said of [
    '[mov,mp4 @ 0x55d0c8] /var/lib/vistum/footage/a b/secret.mp4: Operation not permitted in state',
    "Error opening '/root/data/x.mp4': weird failure.",
    'file:/root/data/x.mp4: Something odd',
  ])
    expect(mediaProblem(said).message).not.toMatch(/\/(root|var)|0x/);
});

test('output without end is cut off', async () => {
  const args = ['-v', 'error', '-f', 'lavfi', '-i', 'testsrc2=s=1280x720', '-f', 'rawvideo', '-'];
  await expect(runMedia('ffmpeg', args, { most: 5 << 20 })).rejects.toMatchObject({
    code: 'media-too-much',
  });
  await expect(
    runMedia('ffmpeg', args, { seconds: 0.3, onOutput: () => undefined }),
  ).rejects.toMatchObject({ code: 'media-too-slow' });
});

describe('an export', () => {
  const rate = rateFromNumber(30);
  const task = async (): Promise<RenderTask> => {
    ffmpeg(...numberedFrames(4, '30'), '-c:v', 'libx264', '-g', '30', file('numbered.mp4'));
    const { facts } = await probeMedia(file('numbered.mp4'));
    const document = structuredClone(createProject(640, 360, rate));
    const screen = document.lanes.find((lane) => lane.kind === 'screen')!;
    screen.clips.push(
      createClip({
        ...{ id: 'c', footageId: 'f', start: 0, duration: facts.duration, source: 0, link: null },
      }),
    );
    const known = { id: 'f', name: 'f', role: 'screen' as const };
    return {
      project: document,
      sources: { footage: { f: { ...facts, ...known } }, pointers: {} },
      originals: { f: { path: file('numbered.mp4'), facts } },
      output: { width: 640, height: 360 },
      rate,
    };
  };
  const settings = { ...DEFAULT_SETTINGS, width: 640, height: 360, frameRate: rate };

  /** An `ffmpeg` that does something else as a decoder, first in the way. */
  function instead(script: string) {
    mkdirSync(file('bin'), { recursive: true });
    const real = execFileSync('which', ['ffmpeg']).toString().trim();
    writeFileSync(
      file('bin/ffmpeg'),
      `#!/bin/sh\ncase "$*" in *numbered.mp4*) ${script};; esac\nexec ${real} "$@"\n`,
    );
    chmodSync(file('bin/ffmpeg'), 0o755);
    const before = process.env.PATH;
    process.env.PATH = `${file('bin')}:${before}`;
    return () => void (process.env.PATH = before);
  }
  const run = async () =>
    exportFile(await task(), settings, file('work'), file('out.mp4'), {
      signal: never,
      onProgress: () => undefined,
    });

  test('whose decoder hangs is ended with a sentence, and leaves nothing running', async () => {
    process.env.VISTUM_MAX_STILL_SECONDS = '2';
    const back = instead('exec sleep 300');
    try {
      await expect(run()).rejects.toMatchObject({ code: 'media-stands-still' });
    } finally {
      back();
      delete process.env.VISTUM_MAX_STILL_SECONDS;
    }
  });

  test('whose decoder is killed is interrupted, and never ends with a picture that stands still', async () => {
    const real = execFileSync('which', ['ffmpeg']).toString().trim();
    const back = instead(`${real} "$@" | head -c 14000000; kill -9 $$`);
    try {
      await expect(run()).rejects.toMatchObject({
        message: expect.stringMatching(/system ended the program/) as string,
      });
    } finally {
      back();
    }
  });
});
