import { execFileSync, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Compositor, type FrameOf } from '@/compositor/compositor';
import type { MatteTask } from '@/contract/analyses';
import type { MediaFacts } from '@/contract/footage';
import { DEFAULT_KEY } from '@/core/edit/settings';
import { PLAIN_VIDEO, type VideoLayer } from '@/core/frame/plan';
import { matteSize } from '@/core/matte/picture';
import { rateFromNumber, secondsToTicks } from '@/core/time/ticks';
import { allocateFrame, frameBytes, planarSize } from '@/kernels/planar';
import { makeMatte } from '@/server/matte/make';
import { COLOR_TAGS } from '@/server/media/filters';
import { loadKernels, nodeRasterizer } from '@/server/media/node-host';
import { table } from './measure';
import { ROOM, roomScenes, type RoomScene } from './made-room';

/*
 * The matte of made presenters in a room whose opacity is known: overlap, error along the outline,
 * flicker, and the time that it takes against that of the recording. By the model and what is put
 * together of the background, and by a shot without the presenter.
 */
const FPS = 30;
const SECONDS = 6;
/** The first pictures show nobody, for the shot without them. */
const EMPTY = 15;
const FRAMES = SECONDS * FPS;
/** Every so many pictures are held against the truth. */
const STEP = 6;
/** Pixels this near to one that is half seen are along the outline. */
const NEAR = 4;
const { width, height } = ROOM;
const SIZE = width * height;

const FACTS = {
  ...{ kind: 'video', width, height, frameRate: rateFromNumber(FPS), variableRate: false },
  ...{ duration: secondsToTicks(SECONDS), hasVideo: true, hasAudio: false, videoCodec: 'h264' },
  ...{ audioCodec: null, channels: 0, sampleRate: 0, convertColor: null },
} as const satisfies MediaFacts;

/** Records a scene as a camera would. */
async function record(scene: RoomScene, path: string): Promise<void> {
  const encoder = spawn('ffmpeg', [
    ...['-v', 'error', '-y', '-f', 'rawvideo', '-pix_fmt', 'rgba', '-s', `${width}x${height}`],
    ...['-r', String(FPS), '-i', '-', '-vf', 'scale=out_color_matrix=bt709:out_range=tv'],
    ...['-pix_fmt', 'yuv420p', '-c:v', 'libx264', '-crf', '20', '-preset', 'veryfast'],
    ...COLOR_TAGS,
    path,
  ]);
  const ended = new Promise((resolve) => encoder.on('close', resolve));
  for (let n = 0; n < FRAMES; n++) {
    const { pixels } = scene.frame(n, n < EMPTY);
    if (!encoder.stdin.write(Buffer.from(pixels.buffer)))
      await new Promise((resolve) => encoder.stdin.once('drain', resolve));
  }
  encoder.stdin.end();
  await ended;
}

const decode = (path: string): Buffer =>
  execFileSync(
    'ffmpeg',
    [
      ...['-v', 'error', '-i', path, '-vf', `select=not(mod(n\\,${STEP}))`, '-vsync', '0'],
      ...['-f', 'rawvideo', '-pix_fmt', 'yuv420p', '-'],
    ],
    { maxBuffer: 1 << 30 },
  );

/** Opacities as the picture shows them, 0 to 255, of every so many pictures. */
async function opacities(recording: string, matte: string): Promise<Uint8Array[]> {
  const heap = await loadKernels();
  const compositor = new Compositor(heap, await nodeRasterizer());
  const small = matteSize(ROOM);
  const [pictures, mattes] = [decode(recording), decode(matte)];
  const picture = allocateFrame(heap, width, height);
  const opacity = allocateFrame(heap, small.width, small.height);
  const target = allocateFrame(heap, width, height);
  const whole = { x: 0, y: 0, width, height };
  const layer: VideoLayer = {
    ...{ kind: 'video', clipId: 'c', footageId: 'f', time: 0, speed: 1, footage: ROOM },
    ...{ source: whole, destination: whole, ...PLAIN_VIDEO },
    ...{ key: { footageId: 'f', ...DEFAULT_KEY, method: 'person' }, matteId: 'm', matte: true },
  };
  const frameOf: FrameOf = (_, what) => ({
    ...{ picture: what === 'matte' ? opacity : picture, part: null, before: null, marks: null },
  });
  const bytes = planarSize(small.width, small.height);
  const count = Math.floor(pictures.length / planarSize(width, height));
  return Array.from({ length: count }, (_, n) => {
    const at = n * planarSize(width, height);
    frameBytes(heap, picture).set(pictures.subarray(at, at + planarSize(width, height)));
    frameBytes(heap, opacity).set(mattes.subarray(n * bytes, (n + 1) * bytes));
    compositor.compose({ size: ROOM, background: '#000000', layers: [layer] }, frameOf, target);
    const shown = frameBytes(heap, target).subarray(0, SIZE);
    return Uint8Array.from(shown, (luma) => Math.max(0, Math.min(255, ((luma - 16) * 255) / 219)));
  });
}

/** Which pixels are near to the outline of a truth. */
function outlineOf(truth: Uint8Array): Uint8Array {
  const near = new Uint8Array(SIZE);
  for (let y = NEAR; y < height - NEAR; y++)
    for (let x = NEAR; x < width - NEAR; x++) {
      const i = y * width + x;
      if (truth[i]! > 127 === truth[i + 1]! > 127 && truth[i]! > 127 === truth[i + width]! > 127)
        continue;
      for (let dy = -NEAR; dy <= NEAR; dy++)
        near.fill(1, i + dy * width - NEAR, i + dy * width + NEAR + 1);
    }
  return near;
}

interface Measured {
  overlap: number;
  worst: number;
  edge: number;
  flicker: number;
}

function measure(scene: RoomScene, found: readonly Uint8Array[]): Measured {
  const sums: Measured = { overlap: 0, worst: 1, edge: 0, flicker: 0 };
  let before: { truth: Uint8Array; own: Uint8Array } | null = null;
  let counted = 0;
  for (const [k, own] of found.entries()) {
    const n = k * STEP;
    if (n < EMPTY) continue;
    const { alpha: truth } = scene.frame(n, false);
    const near = outlineOf(truth);
    let [both, any, edge, along, crawl] = [0, 0, 0, 0, 0];
    for (let i = 0; i < SIZE; i++) {
      const [is, was] = [truth[i]! > 127, own[i]! > 127];
      if (is && was) both++;
      if (is || was) any++;
      if (near[i]) {
        edge += Math.abs(truth[i]! - own[i]!);
        along++;
      }
      if (before)
        crawl += Math.abs(own[i]! - before.own[i]! - (truth[i]! - before.truth[i]!)) / 255;
    }
    sums.overlap += both / any;
    sums.worst = Math.min(sums.worst, both / any);
    sums.edge += edge / along / 255;
    if (before) sums.flicker += crawl / SIZE;
    before = { truth, own };
    counted++;
  }
  const { overlap, edge, flicker, worst } = sums;
  return {
    worst,
    overlap: overlap / counted,
    edge: edge / counted,
    flicker: flicker / (counted - 1),
  };
}

/** Mattes without a wall. */
export async function benchMatte(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'vistum-bench-matte-'));
  const shot = { start: 0, end: secondsToTicks((EMPTY - 1) / FPS) };
  const tasks: readonly (readonly [string, MatteTask])[] = [
    ['the person', { method: 'person', shot: null }],
    ['a shot without them', { method: 'shot', shot }],
  ];
  try {
    const rows: string[][] = [];
    for (const scene of roomScenes()) {
      const recording = join(folder, 'room.mp4');
      await record(scene, recording);
      for (const [name, task] of tasks) {
        const matte = join(folder, 'matte.mp4');
        const began = performance.now();
        await makeMatte(recording, FACTS, task, matte, () => {});
        const took = (performance.now() - began) / 1000;
        const { overlap, worst, edge, flicker } = measure(scene, await opacities(recording, matte));
        rows.push([
          ...[scene.name, name, overlap.toFixed(3), worst.toFixed(3)],
          ...[(edge * 100).toFixed(1), (flicker * 100).toFixed(2), (SECONDS / took).toFixed(2)],
        ]);
      }
    }
    console.log(
      `\n### Presenters without a wall (made, 720p, noise, H.264)\n\n${table(
        ['scene', 'told by', 'overlap', 'least', 'outline, %', 'flicker, %', '× real time'],
        rows,
      )}`,
    );
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
