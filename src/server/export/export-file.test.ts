import { execFileSync } from 'node:child_process';
import { readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { copyRange, pasteSnippet } from '@/core/edit/clipboard';
import { counter, emptyProject } from '@/core/edit/fixture';
import { freezeOver, setSpeed } from '@/core/edit/retime';
import { rippleDelete } from '@/core/edit/ripple';
import { changeKey } from '@/core/edit/settings';
import { addSpan } from '@/core/edit/spans';
import { DEFAULT_TRANSITION, setTransition } from '@/core/edit/transitions';
import { frameDuration, frameStart, rateFromNumber, secondsToTicks } from '@/core/time/ticks';
import { control, file, makeCounted, RATE, settings, taskOf } from '../testing/export';
import { ffmpeg, readNumbers, startedProcesses } from '../testing/media';
import { exportFile } from './export-file';

beforeAll(makeCounted);
afterAll(() => rmSync(file(''), { recursive: true, force: true }));

test('a cut export has exactly the frames that the timeline says, across cuts and segments, and its sound in step', async () => {
  const task = await taskOf({ 'counted.mp4': 'screen' }, (p) =>
    rippleDelete(p, { start: frameStart(100, RATE), end: frameStart(130, RATE) }, counter()),
  );
  const target = file('cut.mp4');
  const result = await exportFile(task, settings, file('work-cut'), target, control());
  const expected = Array.from({ length: 390 }, (_, i) => (i < 100 ? i : i + 30));
  expect(result.frames).toBe(390);
  expect(readNumbers(target)).toEqual(expected);
  const pcm = ffmpeg('-i', target, '-ac', '1', '-ar', '48000', '-f', 'f32le', '-');
  const sound = new Float32Array(pcm.buffer.slice(pcm.byteOffset, pcm.byteOffset + pcm.length));
  for (const second of [1, 2, 3, 6, 11, 12]) {
    const from = second * 48000 - 2400;
    let peak = from;
    for (let i = from; i < from + 4800; i++)
      if (Math.abs(sound[i]!) > Math.abs(sound[peak]!)) peak = i;
    expect(Math.abs(sound[peak]!)).toBeGreaterThan(0.2);
    // Well within one frame (1600 samples), up to the end.
    expect(Math.abs(peak - second * 48000)).toBeLessThan(480);
  }
  const probe = JSON.parse(
    execFileSync('ffprobe', ['-v', 'error', '-show_streams', '-of', 'json', target]).toString(),
  ) as {
    streams: Record<string, string>[];
  };
  expect(probe.streams[0]).toMatchObject({
    codec_name: 'h264',
    color_space: 'bt709',
    color_range: 'tv',
    color_primaries: 'bt709',
    color_transfer: 'bt709',
    pix_fmt: 'yuv420p',
  });
  expect(probe.streams[1]).toMatchObject({ codec_name: 'aac', sample_rate: '48000' });
});

test('speed, a frozen frame, a stretch laid over and a dissolve show exactly the frames that the timeline says', async () => {
  const count = counter();
  const newId = () => `new-${count()}`;
  const f = (n: number) => frameStart(n, RATE);
  const task = await taskOf({ 'counted.mp4': 'screen' }, (p) => {
    p.lanes = p.lanes.filter((l) => l.kind !== 'computer');
    const lane = p.lanes.find((l) => l.kind === 'screen')!;
    lane.clips[0]!.link = null;
    rippleDelete(p, { start: f(60), end: f(120) }, newId);
    rippleDelete(p, { start: f(150), end: f(330) }, newId);
    const [first, second, third] = lane.clips;
    // From its last 30 frames on: twice as fast.
    setSpeed(p, third!.id, 2, 'stay', frameDuration(RATE), newId);
    freezeOver(
      p,
      { footage: {}, pointers: {} },
      first!.id,
      f(30),
      f(10),
      frameDuration(RATE),
      newId,
    );
    pasteSnippet(
      p,
      { footage: { 'counted.mp4': {} as never }, pointers: {} },
      copyRange(p, { start: f(70), end: f(80) }, [lane.id]),
      f(90),
      'overwrite',
      'front',
      newId,
    );
    setTransition(
      p,
      { footage: {}, pointers: {} },
      second!.id,
      'start',
      { ...DEFAULT_TRANSITION, duration: f(8) },
      frameDuration(RATE),
    );
  });
  const target = file('tools.mp4');
  const result = await exportFile(task, settings, file('work-tools'), target, control());
  const expected = Array.from({ length: result.frames }, (_, i) => {
    if (i >= 90 && i < 100) return i - 20 + 60;
    if (i < 30) return i;
    if (i < 40) return 30;
    if (i < 60) return i;
    if (i < 150) return i + 60;
    return 390 + (i - 150) * 2;
  });
  expect(result.frames).toBe(165);
  const got = readNumbers(target);
  // In the dissolve both pictures are seen at once, so that there is no number to read.
  const clear = (list: number[]) => list.filter((_, i) => i < 56 || i >= 64);
  expect(clear(got)).toEqual(clear(expected));
  // Half way, cells that only one of the two pictures has are half as bright.
  const gray = ffmpeg(
    '-i',
    target,
    '-vf',
    "select='eq(n,60)',format=gray",
    '-frames:v',
    '1',
    '-f',
    'rawvideo',
    '-',
  );
  const cells = Array.from({ length: 8 }, (_, bit) => gray[20 * 1280 + bit * 40 + 20]!);
  const both = [60, 120].map((n) => Array.from({ length: 8 }, (_, bit) => (n >> bit) & 1));
  cells.forEach((v, bit) =>
    expect(Math.abs(v - (255 * (both[0]![bit]! + both[1]![bit]!)) / 2)).toBeLessThan(12),
  );
});

test('steps become chapters, each with a key frame at its start', async () => {
  const task = await taskOf({ 'counted.mp4': 'screen' }, (p) => {
    const step = { narration: '', action: '', notes: '' };
    p.steps = [
      { ...step, id: 'a', start: 0, title: 'Open the schedule' },
      { ...step, id: 'b', start: frameStart(101, RATE), title: 'Ramp = 120; soak #2' },
      { ...step, id: 'c', start: frameStart(333, RATE), title: 'Book it' },
    ];
  });
  const target = file('chapters.mp4');
  await exportFile(
    task,
    { ...settings, range: { start: 1, end: 13 } },
    file('work-chapters'),
    target,
    control(),
  );
  const probe = (...args: string[]) =>
    execFileSync('ffprobe', ['-v', 'error', ...args, target]).toString();
  const { chapters } = JSON.parse(probe('-show_chapters', '-of', 'json')) as {
    chapters: { start_time: string; end_time: string; tags: { title: string } }[];
  };
  expect(chapters.map((c) => [Number(c.start_time), Number(c.end_time), c.tags.title])).toEqual([
    [0, 2.367, 'Open the schedule'],
    [2.367, 10.1, 'Ramp = 120; soak #2'],
    [10.1, 12, 'Book it'],
  ]);
  const keys = probe(
    '-select_streams',
    'v',
    '-skip_frame',
    'nokey',
    '-show_entries',
    'frame=pts_time',
    '-of',
    'csv=p=0',
  )
    .trim()
    .split('\n')
    .map((t) => Math.round(Number.parseFloat(t) * 30));
  expect(keys).toEqual(expect.arrayContaining([0, 71, 303]));
});

const segmentsIn = (path: string) => readdirSync(path).filter((f) => /^segment-.*\.mp4$/.test(f));

test('an export that was stopped goes on with the segments it has', async () => {
  const task = await taskOf({ 'counted.mp4': 'screen' });
  const work = file('work-resume');
  const processes = startedProcesses();
  const abort = new AbortController();
  const stopped = exportFile(task, settings, work, file('resumed.mp4'), {
    signal: abort.signal,
    // In the middle of things, and at the latest when they are joined.
    onProgress: () => segmentsIn(work).length && abort.abort(),
  });
  await expect(stopped).rejects.toThrow();
  expect(startedProcesses()).toEqual(processes);
  expect(readdirSync(work).filter((name) => name.startsWith('run-'))).toEqual([]);
  const whole = segmentsIn(work);
  expect(whole.length).toBeGreaterThan(0);
  for (const more of whole.slice(1)) rmSync(join(work, more));
  const [, from, to] = /^segment-(\d{7})-(\d{7})\.mp4$/.exec(whole[0]!)!;
  let first = 0;
  const result = await exportFile(task, settings, work, file('resumed.mp4'), {
    ...control(),
    onProgress: (share) => (first ||= share),
  });
  expect(first).toBeGreaterThanOrEqual(((Number(to) - Number(from)) / 420) * 0.96);
  expect(result.frames).toBe(420);
  expect(readNumbers(file('resumed.mp4'))).toEqual(Array.from({ length: 420 }, (_, i) => i));
  expect(readdirSync(work)).toEqual([]);
});

test('a range, another size and another rate', async () => {
  const task = await taskOf({ 'counted.mp4': 'screen' });
  const small = {
    ...settings,
    width: 640,
    height: 360,
    frameRate: rateFromNumber(15),
    range: { start: 2, end: 4 },
  };
  const result = await exportFile(
    { ...task, output: small, rate: small.frameRate },
    small,
    file('work-range'),
    file('range.mp4'),
    control(),
  );
  expect(result).toMatchObject({ width: 640, height: 360, frames: 30, duration: 2 });
  expect(readNumbers(file('range.mp4'), 0.5)).toEqual(
    Array.from({ length: 30 }, (_, i) => 60 + i * 2),
  );
});

test('colours come out as they went in, and a keyed wall is gone', async () => {
  ffmpeg(
    '-f',
    'lavfi',
    '-i',
    'color=c=0x2f9a4b:s=640x360:r=30:d=1,drawbox=x=220:y=80:w=200:h=200:c=0xb0583a:t=fill',
    '-vf',
    'scale=out_color_matrix=bt709:out_range=tv',
    '-c:v',
    'libx264',
    '-crf',
    '10',
    '-pix_fmt',
    'yuv420p',
    '-colorspace',
    'bt709',
    file('person.mp4'),
  );
  ffmpeg(
    '-f',
    'lavfi',
    '-i',
    'color=c=0x3d6785:s=1280x720:r=30:d=1',
    '-c:v',
    'libx264',
    '-crf',
    '10',
    '-pix_fmt',
    'yuv420p',
    '-vf',
    'scale=out_color_matrix=bt709:out_range=tv',
    '-colorspace',
    'bt709',
    file('blue.mp4'),
  );
  const task = await taskOf({ 'blue.mp4': 'screen', 'person.mp4': 'presenter' }, (p) => {
    changeKey(p, 'person.mp4', { color: '#2f9a4b', tolerance: 20, softness: 10 });
    Object.assign(p.presenter, {
      shape: 'rectangle',
      backdrop: null,
      size: 0.5,
      margin: 0,
      ring: { width: 0, color: '#000000' },
    });
  });
  await exportFile(task, settings, file('work-key'), file('key.mp4'), control());
  const rgb = ffmpeg(
    '-i',
    file('key.mp4'),
    '-frames:v',
    '1',
    '-vf',
    'scale=in_color_matrix=bt709:in_range=tv,format=rgb24',
    '-f',
    'rawvideo',
    '-',
  );
  const at = (x: number, y: number) => [
    ...rgb.subarray((y * 1280 + x) * 3, (y * 1280 + x) * 3 + 3),
  ];
  const near = (got: number[], want: number[]) =>
    got.forEach((v, i) => expect(Math.abs(v - want[i]!)).toBeLessThanOrEqual(6));
  near(at(100, 100), [0x3d, 0x67, 0x85]);
  // Where the wall was, the screen is seen.
  near(at(700, 400), [0x3d, 0x67, 0x85]);
  near(at(960, 540), [0xb0, 0x58, 0x3a]);
});

test('a framing at the sharp limit copies the recording’s pixels', async () => {
  ffmpeg(
    '-f',
    'lavfi',
    '-i',
    'testsrc2=s=2560x1440:r=30:d=0.5',
    '-c:v',
    'libx264',
    '-qp',
    '0',
    '-pix_fmt',
    'yuv420p',
    file('large.mp4'),
  );
  const task = await taskOf({ 'large.mp4': 'screen' }, (p) =>
    addSpan(p, 'framings', {
      id: 'f',
      start: 0,
      end: secondsToTicks(0.5),
      rampIn: 0,
      rampOut: 0,
      footageId: 'large.mp4',
      rect: { x: 640, y: 360, width: 1280, height: 720 },
      endRect: null,
      pinned: true,
      reason: '',
    }),
  );
  await exportFile(
    task,
    { ...settings, quality: 'high' },
    file('work-large'),
    file('large-out.mp4'),
    control(),
  );
  const result = ffmpeg(
    '-i',
    file('large-out.mp4'),
    '-frames:v',
    '1',
    '-vf',
    'format=gray',
    '-f',
    'rawvideo',
    '-',
  );
  const source = ffmpeg(
    '-i',
    file('large.mp4'),
    '-frames:v',
    '1',
    '-vf',
    'crop=1280:720:640:360,format=gray',
    '-f',
    'rawvideo',
    '-',
  );
  let error = 0;
  for (let i = 0; i < source.length; i++) error += Math.abs(result[i]! - source[i]!);
  expect(error / source.length).toBeLessThan(1.5);
});

test('text that is magnified comes out nearer to what it would be than any filter has it', async () => {
  // Four pages beside and below each other, as they would be recorded and at twice the size.
  const pages = (by: 1 | 2, width: number, height: number, out: readonly string[]) =>
    ffmpeg(
      ...[0, 1, 2, 3].flatMap((n) => ['-loop', '1', '-i', `bench/crisp/page-${n}-${by}.png`]),
      '-filter_complex',
      `xstack=inputs=4:layout=0_0|w0_0|0_h0|w0_h0,crop=${width}:${height}:0:0`,
      ...out,
    );
  const encoder = ['-c:v', 'libx264', '-crf', '18', '-pix_fmt', 'yuv420p', '-r', '30'];
  pages(1, 640, 360, ['-t', '1', ...encoder, file('pages.mp4')]);
  const grey = ['-frames:v', '1', '-pix_fmt', 'gray', '-f', 'rawvideo', '-'];
  const truth = pages(2, 1280, 720, grey);
  const errorOf = async (crisp: boolean) => {
    const task = await taskOf({ 'pages.mp4': 'screen' }, (p) => (p.canvas.crisp = crisp));
    const out = file(`pages-${crisp}.mp4`);
    await exportFile(task, { ...settings, quality: 'high' }, file(`w-${crisp}`), out, control());
    const made = ffmpeg('-ss', '0.5', '-i', out, ...grey);
    expect(made).toHaveLength(truth.length);
    let sum = 0;
    for (let i = 0; i < truth.length; i++) sum += (made[i]! - truth[i]!) ** 2;
    return sum / truth.length;
  };
  // Four decibels are a factor of 2.5.
  expect((await errorOf(false)) / (await errorOf(true))).toBeGreaterThan(2.5);
});

test('nothing to export, or a range without a frame, is said', async () => {
  const empty = { ...(await taskOf({})), project: emptyProject() };
  await expect(exportFile(empty, settings, file('w'), file('x.mp4'), control())).rejects.toThrow(
    /timeline is empty/,
  );
  const task = await taskOf({ 'counted.mp4': 'screen' });
  await expect(
    exportFile(
      task,
      { ...settings, range: { start: 100, end: 101 } },
      file('w'),
      file('x.mp4'),
      control(),
    ),
  ).rejects.toThrow(/range/);
  expect(frameDuration(RATE)).toBe(23_520_000);
});
