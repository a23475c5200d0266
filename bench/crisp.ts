import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Compositor } from '@/compositor/compositor';
import { SourceHistory } from '@/compositor/source-frame';
import { PLAIN_VIDEO, type FramePlan } from '@/core/frame/plan';
import type { Size } from '@/core/scale/rect';
import { frameDuration, secondsToTicks } from '@/core/time/ticks';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, frameBytes, releaseFrame } from '@/kernels/planar';
import { exportFile } from '@/server/export/export-file';
import type { RenderTask } from '@/server/export/render-frames';
import { DEFAULT_SETTINGS } from '@/server/export/settings';
import { loadKernels, nodeRasterizer } from '@/server/media/node-host';
import { timeComposing } from './composing';
import { costOf, table } from './measure';
import { demoTask, FULL_HD, RATE } from './scenes';
import { ssim } from './ssim';

/*
 * Magnified text of pages in letters and colours that the network has not seen (tools/crisp), beside
 * the plain filter, against the same outlines drawn at the larger size. Luma only.
 */
const FOLDER = 'bench/crisp';
const PICTURE = 'docs/text-rebuilt.png';
const PAGE: Size = { width: 320, height: 240 };
const PAGES = 8;
const SCALES = [1.25, 1.5, 2];
const BLOCK = 16;
/** What of the demo is composed and exported. */
const [FROM, SECONDS] = [20, 20];
/** Blocks whose grey varies by less have no text. */
const TEXT = 10;

/** How recordings are compressed: arguments of FFmpeg's encoders. */
const CODECS: Readonly<Record<string, readonly string[]>> = {
  'H.264, rate factor 20': ['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '20'],
  'VP9, rate factor 28': [
    ...['-c:v', 'libvpx-vp9', '-deadline', 'realtime', '-cpu-used', '7'],
    ...['-crf', '28', '-b:v', '0'],
  ],
};

const ffmpeg = (args: readonly string[], input?: Uint8Array): Uint8Array =>
  execFileSync('ffmpeg', ['-v', 'error', ...args], { input, maxBuffer: 1 << 28 });

const picture = (name: string): Uint8Array =>
  ffmpeg(['-i', join(FOLDER, name), '-f', 'rawvideo', '-pix_fmt', 'gray', '-']);

const rawInput = ({ width, height }: Size, format: string) => [
  ...['-f', 'rawvideo', '-pix_fmt', format, '-s', `${width}x${height}`, '-r', '30', '-i', '-'],
];

/** What an encoder makes of lumas that follow each other. */
function recorded(
  lumas: readonly Uint8Array[],
  { width, height }: Size,
  codec: readonly string[],
): Uint8Array[] {
  const folder = mkdtempSync(join(tmpdir(), 'vistum-crisp-'));
  try {
    const file = join(folder, 'recording.mkv');
    const grey = new Uint8Array((width * height) / 2).fill(128);
    const raw = Buffer.concat(lumas.flatMap((luma) => [luma, grey]));
    ffmpeg([...rawInput({ width, height }, 'yuv420p'), ...codec, file], raw);
    const back = ffmpeg(['-i', file, '-f', 'rawvideo', '-pix_fmt', 'yuv420p', '-']);
    const each = (width * height * 3) / 2;
    return lumas.map((_, i) => back.slice(i * each, i * each + width * height));
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** Draws lumas one after the other, magnified, as an export does. */
function* drawn(
  heap: KernelHeap,
  compositor: Compositor,
  lumas: readonly Uint8Array[],
  from: Size,
  to: Size,
  crisp: boolean,
  inMotion = true,
): Generator<Uint8Array> {
  const plan: FramePlan = {
    size: to,
    background: '#000000',
    layers: [
      {
        kind: 'video',
        clipId: 'c',
        footageId: `f${crisp}`,
        ...{ time: 0, speed: 1, footage: from },
        source: { x: 0, y: 0, ...from },
        destination: { x: 0, y: 0, ...to },
        ...PLAIN_VIDEO,
        crisp,
      },
    ],
  };
  const history = new SourceHistory();
  const target = allocateFrame(heap, to.width, to.height);
  const pair = [0, 1].map(() => allocateFrame(heap, from.width, from.height));
  for (const [i, luma] of lumas.entries()) {
    const frame = pair[i % 2]!;
    frameBytes(heap, frame).fill(128);
    frameBytes(heap, frame).set(luma);
    const source = history.push(frame, null);
    compositor.compose(plan, () => source, target, { budget: Infinity, inMotion });
    yield frameBytes(heap, target).slice(0, to.width * to.height);
  }
  [target, ...pair].forEach((frame) => releaseFrame(heap, frame));
}

const scaled = (size: Size, by: number): Size => ({
  width: size.width * by,
  height: size.height * by,
});

/** Mean square error and steepness in blocks that have text in the truth. */
class Errors {
  private squares = 0;
  private count = 0;
  private steep = 0;
  private steepTruth = 0;
  private likeness = 0;
  private pictures = 0;

  add(made: Uint8Array, truth: Uint8Array, { width, height }: Size): void {
    this.likeness += ssim(made, truth, width, height);
    this.pictures++;
    for (let y = 0; y + BLOCK < height; y += BLOCK)
      for (let x = 0; x + BLOCK < width; x += BLOCK) {
        if (spread(truth, width, x, y) < TEXT) continue;
        for (let v = y; v < y + BLOCK; v++)
          for (let u = x; u < x + BLOCK; u++) {
            const at = v * width + u;
            this.squares += (made[at]! - truth[at]!) ** 2;
            this.count++;
            const edge = steepness(truth, at, width);
            if (edge < 24) continue;
            this.steep += steepness(made, at, width);
            this.steepTruth += edge;
          }
      }
  }

  row(): string[] {
    const db = 10 * Math.log10(255 ** 2 / (this.squares / this.count));
    return [
      db.toFixed(2),
      (this.likeness / this.pictures).toFixed(3),
      (this.steep / this.steepTruth).toFixed(2),
    ];
  }
}

const steepness = (plane: Uint8Array, at: number, width: number) =>
  Math.abs(plane[at + 1]! - plane[at]!) + Math.abs(plane[at + width]! - plane[at]!);

/** Standard deviation in a block. */
function spread(plane: Uint8Array, width: number, x: number, y: number): number {
  let [sum, squares] = [0, 0];
  for (let v = y; v < y + BLOCK; v++)
    for (let u = x; u < x + BLOCK; u++) {
      const value = plane[v * width + u]!;
      sum += value;
      squares += value * value;
    }
  const mean = sum / BLOCK ** 2;
  return Math.sqrt(Math.max(0, squares / BLOCK ** 2 - mean * mean));
}

function quality(heap: KernelHeap, compositor: Compositor): void {
  const clean = Array.from({ length: PAGES }, (_, i) => picture(`page-${i}-1.png`));
  const inputs: [string, Uint8Array[]][] = [
    ['clean', clean],
    ...Object.entries(CODECS).map(([name, codec]): [string, Uint8Array[]] => [
      name,
      // Each page is there for half a second; the last of its pictures is taken.
      clean.map((luma) => recorded(new Array<Uint8Array>(15).fill(luma), PAGE, codec)[14]!),
    ]),
  ];
  const rows: string[][] = [];
  for (const [name, lumas] of inputs)
    for (const by of SCALES) {
      const to = scaled(PAGE, by);
      const truths = lumas.map((_, i) => picture(`page-${i}-${by}.png`));
      const made = (crisp: boolean) => {
        const errors = new Errors();
        lumas.forEach((luma, i) => {
          for (const plane of drawn(heap, compositor, [luma], PAGE, to, crisp, false))
            errors.add(plane, truths[i]!, to);
        });
        return errors.row();
      };
      const lanczos = new Errors();
      lumas.forEach((luma, i) => {
        const flags = 'lanczos+accurate_rnd';
        const scale = ['-vf', `scale=${to.width}:${to.height}:flags=${flags}`];
        const out = ['-f', 'rawvideo', '-pix_fmt', 'gray', '-'];
        lanczos.add(ffmpeg([...rawInput(PAGE, 'gray'), ...scale, ...out], luma), truths[i]!, to);
      });
      const columns = [made(false), lanczos.row(), made(true)];
      rows.push([name, `${by}x`, ...columns.map((c) => c.join(' / '))]);
    }
  console.log('\n## Magnified text: PSNR in dB where there is text / SSIM / steepness of edges\n');
  console.log(table(['recording', 'by', 'plain filter', 'Lanczos', 'rebuilt'], rows));
}

/** How much a resting page moves by its codec's noise, where it is magnified. */
function flicker(heap: KernelHeap, compositor: Compositor): void {
  const rows = Object.entries({
    'H.264 20, a key frame every 5': [...CODECS['H.264, rate factor 20']!, '-g', '5'],
    'H.264 26, a key frame every 5': [
      ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '26', '-g', '5'],
    ],
    'VP9, a key frame every 10': [...CODECS['VP9, rate factor 28']!, '-g', '10'],
  }).map(([name, codec]) => {
    const steps = (crisp: boolean) => {
      const found: number[] = [];
      for (let i = 0; i < 3; i++) {
        const luma = picture(`page-${i}-1.png`);
        const lumas = recorded(new Array<Uint8Array>(30).fill(luma), PAGE, codec);
        let before: Uint8Array | null = null;
        for (const now of drawn(heap, compositor, lumas, PAGE, scaled(PAGE, 1.8), crisp)) {
          if (before)
            for (let k = 0; k < now.length; k++) found.push(Math.abs(now[k]! - before[k]!));
          before = now;
        }
      }
      const counts = new Array<number>(256).fill(0);
      for (const step of found) counts[step]!++;
      let left = found.length * 0.001;
      let high = 255;
      while (left > counts[high]!) left -= counts[high--]!;
      const mean = counts.reduce((sum, n, step) => sum + n * step, 0) / found.length;
      return `${mean.toFixed(3)} / ${high}`;
    };
    return [name, steps(false), steps(true)];
  });
  console.log('\n## A resting page at 1.8x: mean step from picture to picture in greys / 99.9 %\n');
  console.log(table(['recording', 'plain filter', 'rebuilt'], rows));
}

/** Characters that Tesseract reads wrong of a page of 9 to 12 px. */
function reading(heap: KernelHeap, compositor: Compositor): void {
  const size = { width: 480, height: 270 };
  const said = readFileSync(join(FOLDER, 'reading.txt'), 'utf8').trim();
  const luma = recorded(
    new Array<Uint8Array>(10).fill(picture('reading.png')),
    size,
    CODECS['H.264, rate factor 20']!,
  )[9]!;
  const folder = mkdtempSync(join(tmpdir(), 'vistum-reading-'));
  const wrong = (crisp: boolean) => {
    const to = scaled(size, 2);
    const [plane] = [...drawn(heap, compositor, [luma], size, to, crisp, false)];
    const file = join(folder, 'page.png');
    writeFileSync(
      file,
      ffmpeg(
        [...rawInput(to, 'gray'), '-frames:v', '1', '-f', 'image2', '-c:v', 'png', '-'],
        plane,
      ),
    );
    const read = execFileSync('tesseract', [file, '-', '--psm', '6'], {
      env: { ...process.env, OMP_THREAD_LIMIT: '1' },
      stdio: ['ignore', 'pipe', 'ignore'],
    })
      .toString()
      .replace(/\n+/g, '\n')
      .trim();
    return `${distance(read, said)} of ${said.length}`;
  };
  try {
    console.log('\n## Characters of 9 to 12 px at 2x that Tesseract reads wrong\n');
    console.log(table(['plain filter', 'rebuilt'], [[wrong(false), wrong(true)]]));
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
    console.log('Tesseract is not there.');
  } finally {
    rmSync(folder, { recursive: true });
  }
}

/** Insertions, deletions and changes from one text to another (V. Levenshtein, 1966). */
function distance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let k = 1; k <= b.length; k++)
      next[k] = Math.min(
        next[k - 1]! + 1,
        row[k]! + 1,
        row[k - 1]! + (a[i - 1] === b[k - 1] ? 0 : 1),
      );
    row = next;
  }
  return row[b.length]!;
}

/** The picture of the docs: a part of a page at twice the size, plain, rebuilt, and as drawn. */
function comparison(heap: KernelHeap, compositor: Compositor): void {
  const to = scaled(PAGE, 2);
  const luma = recorded(
    new Array<Uint8Array>(15).fill(picture('page-0-1.png')),
    PAGE,
    CODECS['H.264, rate factor 20']!,
  )[14]!;
  const planes = [false, true].map(
    (crisp) => [...drawn(heap, compositor, [luma], PAGE, to, crisp, false)][0]!,
  );
  const part = { width: 400, height: 300 };
  const three = [...planes, picture('page-0-2.png')];
  const side = new Uint8Array(three.length * part.width * part.height);
  three.forEach((plane, i) => {
    for (let y = 0; y < part.height; y++)
      side.set(
        plane.subarray(y * to.width, y * to.width + part.width),
        (y * three.length + i) * part.width,
      );
  });
  const size = { width: part.width * three.length, height: part.height };
  ffmpeg([...rawInput(size, 'gray'), '-frames:v', '1', '-y', PICTURE], side);
}

/** The demo with a view at 1.8 of the picture's pixels for one of the recording all the time. */
async function closeDemo(output: Size): Promise<(crisp: boolean) => RenderTask> {
  const task = await demoTask(output);
  const { project } = task;
  const width = FULL_HD.width / 1.8;
  const rect = { x: 300, y: 200, width, height: (width * 9) / 16 };
  const clips = project.lanes.flatMap((lane) => (lane.kind === 'screen' ? lane.clips : []));
  const framings = clips.map(({ footageId, start, duration }, i) => ({
    ...{ id: `v${i}`, start, end: start + duration, rampIn: 0, rampOut: 0 },
    ...{ footageId, rect, endRect: null, pinned: true, reason: '' },
  }));
  return (crisp) => ({
    ...task,
    project: { ...project, framings, canvas: { ...project.canvas, crisp } },
  });
}

/** Composing alone, in the preview's size and an export's: text rebuilt and not. */
async function cost(): Promise<void> {
  const rows: string[][] = [];
  const times = Array.from(
    { length: SECONDS * 30 },
    (_, i) => secondsToTicks(FROM) + i * frameDuration(RATE),
  );
  for (const output of [{ width: 1280, height: 720 }, FULL_HD]) {
    const task = await closeDemo(output);
    const by = async (crisp: boolean) => {
      const { compose } = await timeComposing(task(crisp), times);
      const sorted = [...compose].sort((a, b) => a - b);
      const mean = compose.reduce((a, b) => a + b, 0) / compose.length;
      return [mean, sorted[sorted.length >> 1]!, sorted[Math.floor(sorted.length * 0.95)]!]
        .map((ms) => ms.toFixed(1))
        .join(' / ');
    };
    rows.push([`${output.width}x${output.height}`, await by(false), await by(true)]);
  }
  console.log(
    `\n## ${SECONDS} s of the demo, a view at 1.8x: ms to compose a picture, mean / median / 95 %\n`,
  );
  console.log(table(['', 'plain filter', 'rebuilt'], rows));
}

/** Whole exports of the same, in turn. */
async function exporting(): Promise<void> {
  const task = await closeDemo(FULL_HD);
  const folder = mkdtempSync(join(tmpdir(), 'vistum-crisp-'));
  const settings = {
    ...DEFAULT_SETTINGS,
    ...FULL_HD,
    frameRate: RATE,
    range: { start: FROM, end: FROM + SECONDS },
  };
  const seconds = async (crisp: boolean, round: number) => {
    const control = { signal: new AbortController().signal, onProgress: () => {} };
    const out = join(folder, `${crisp}-${round}.mp4`);
    const { wall } = await costOf(() =>
      exportFile(task(crisp), settings, join(folder, `w-${crisp}-${round}`), out, control),
    );
    return wall;
  };
  try {
    const shares: number[] = [];
    for (let round = 0; round < 3; round++)
      shares.push((await seconds(false, round)) / (await seconds(true, round)));
    const shown = shares.map((share) => share.toFixed(2)).join(', ');
    console.log(`\nSpeed of its export beside one without, in three rounds: ${shown}`);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

export async function benchCrisp(): Promise<void> {
  const heap = await loadKernels();
  const compositor = new Compositor(heap, await nodeRasterizer());
  quality(heap, compositor);
  flicker(heap, compositor);
  reading(heap, compositor);
  comparison(heap, compositor);
  await cost();
  await exporting();
}
