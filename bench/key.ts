import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Compositor } from '@/compositor/compositor';
import { PLAIN_VIDEO, type VideoLayer } from '@/core/frame/plan';
import { formatColor } from '@/core/key/color';
import { estimateWall, type ChromaPicture, type WallEstimate } from '@/core/key/wall';
import { DEFAULT_KEY } from '@/core/edit/settings';
import { secondsToTicks } from '@/core/time/ticks';
import { allocateFrame, frameBytes, planarSize } from '@/kernels/planar';
import { loadKernels, nodeRasterizer } from '@/server/media/node-host';
import { MADE, madeFrame } from './made-presenter';
import { table } from './measure';

/*
 * The key on a made presenter whose opacity is known: mean error of the opacity, wall's colour that
 * is left, flicker. Beside it FFmpeg's `chromakey` with the settings that a search finds to have
 * the least error; Vistum's settings are those that it finds by itself.
 */
const FRAMES = 8;
const GREY = 128;
const { width, height } = MADE;
const SIZE = width * height;
const ffmpeg = (...args: string[]) =>
  execFileSync('ffmpeg', ['-v', 'error', '-nostdin', '-y', ...args], { maxBuffer: 1 << 30 });

/** Opacity, 0 to 255, and the picture over grey as 4:2:0, of every frame. */
interface Keyed {
  readonly alpha: Uint8Array;
  readonly over: readonly Uint8Array[];
}

interface Truth {
  readonly alpha: Float32Array;
  readonly over: readonly Uint8Array[];
}

function planesOf(bytes: Uint8Array): ChromaPicture {
  const quarter = SIZE / 4;
  return {
    y: bytes.subarray(0, SIZE),
    u: bytes.subarray(SIZE, SIZE + quarter),
    v: bytes.subarray(SIZE + quarter),
    width,
    height,
  };
}

async function vistum(
  frames: readonly Uint8Array[],
  wall: WallEstimate,
  steady: number,
): Promise<Keyed> {
  const heap = await loadKernels();
  const compositor = new Compositor(heap, await nodeRasterizer());
  const picture = allocateFrame(heap, width, height);
  const target = allocateFrame(heap, width, height);
  const whole = { x: 0, y: 0, width, height };
  const layer: VideoLayer = {
    kind: 'video',
    clipId: 'c',
    footageId: 'f',
    time: 0,
    speed: 1,
    footage: MADE,
    source: whole,
    destination: whole,
    ...PLAIN_VIDEO,
    key: { footageId: 'f', ...DEFAULT_KEY, ...wall, steady },
  };
  const alpha = new Uint8Array(SIZE * FRAMES);
  const over: Uint8Array[] = [];
  frames.forEach((bytes, n) => {
    frameBytes(heap, picture).set(bytes);
    const draw = (matte: boolean) => {
      const plan = {
        size: MADE,
        background: formatColor([GREY, GREY, GREY]),
        layers: [{ ...layer, matte, time: secondsToTicks(n / 30) }],
      };
      compositor.compose(plan, () => ({ picture, part: null, before: null, marks: null }), target);
      return frameBytes(heap, target).slice();
    };
    const matte = draw(true);
    for (let i = 0; i < SIZE; i++)
      alpha[n * SIZE + i] = Math.min(255, Math.max(0, Math.round(((matte[i]! - 16) * 255) / 219)));
    over.push(draw(false));
  });
  return { alpha, over };
}

const error = (alpha: Uint8Array, truth: Float32Array) => {
  let sum = 0;
  for (let i = 0; i < truth.length; i++) sum += Math.abs(alpha[i]! / 255 - truth[i]!);
  return sum / truth.length;
};

/** Mean change of opacity from frame to frame that is not the truth's own. */
function flicker(alpha: Uint8Array, truth: Float32Array): number {
  let sum = 0;
  for (let i = SIZE; i < truth.length; i++)
    sum += Math.abs((alpha[i]! - alpha[i - SIZE]!) / 255 - (truth[i]! - truth[i - SIZE]!));
  return sum / (truth.length - SIZE);
}

/**
 * What the picture over grey has more of the wall's direction than the truth, mean over where the
 * presenter is, in code values of chroma.
 */
function spill(
  over: readonly Uint8Array[],
  truth: Truth,
  direction: { u: number; v: number },
): number {
  let sum = 0;
  let count = 0;
  over.forEach((bytes, n) => {
    const [got, want] = [planesOf(bytes), planesOf(truth.over[n]!)];
    for (let y = 0; y < height / 2; y++)
      for (let x = 0; x < width / 2; x++) {
        if (truth.alpha[n * SIZE + y * 2 * width + x * 2]! < 0.05) continue;
        const i = (y * width) / 2 + x;
        sum += Math.max(
          0,
          (got.u[i]! - want.u[i]!) * direction.u + (got.v[i]! - want.v[i]!) * direction.v,
        );
        count++;
      }
  });
  return sum / count;
}

function search(
  path: string,
  color: string,
  truth: Float32Array,
): { filter: string; alpha: Uint8Array } {
  const tried = new Map<string, { filter: string; alpha: Uint8Array; error: number }>();
  const attempt = (similarity: number, blend: number) => {
    const filter = `chromakey=${color}:${similarity.toFixed(3)}:${blend.toFixed(3)}`;
    if (!tried.has(filter)) {
      const alpha = ffmpeg(
        '-i',
        path,
        '-vf',
        `${filter},format=yuva420p,alphaextract`,
        '-f',
        'rawvideo',
        '-pix_fmt',
        'gray',
        '-',
      );
      tried.set(filter, { filter, alpha, error: error(alpha, truth) });
    }
    return tried.get(filter)!;
  };
  let best = attempt(0.1, 0.05);
  let [similarity, blend] = [0.1, 0.05];
  // A coarse grid, then around its best with steps that are halved.
  for (const s of [0.02, 0.04, 0.06, 0.09, 0.13, 0.18])
    for (const b of [0, 0.03, 0.06, 0.1, 0.16]) {
      const one = attempt(s, b);
      if (one.error < best.error) [best, similarity, blend] = [one, s, b];
    }
  for (const step of [0.01, 0.005, 0.0025])
    for (const [ds, db] of [
      [-1, 0],
      [1, 0],
      [0, -1],
      [0, 1],
      [-1, 1],
      [1, -1],
    ] as const) {
      const [s, b] = [Math.max(0.001, similarity + ds * step), Math.max(0, blend + db * step)];
      const one = attempt(s, b);
      if (one.error < best.error) [best, similarity, blend] = [one, s, b];
    }
  return best;
}

export async function benchKey(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'vistum-bench-key-'));
  try {
    const path = join(folder, 'made.mp4');
    const raw = (name: string) => join(folder, name);
    const rgb = Buffer.alloc(SIZE * 3 * FRAMES);
    const person = Buffer.alloc(SIZE * 3 * FRAMES);
    const alpha = new Float32Array(SIZE * FRAMES);
    for (let n = 0; n < FRAMES; n++) {
      const frame = madeFrame(n);
      alpha.set(frame.alpha, n * SIZE);
      frame.rgb.forEach((value, i) => (rgb[n * SIZE * 3 + i] = Math.round(value)));
      frame.person.forEach(
        (value, i) =>
          (person[n * SIZE * 3 + i] = Math.round(value + (1 - frame.alpha[(i / 3) | 0]!) * GREY)),
      );
    }
    writeFileSync(raw('in.rgb'), rgb);
    writeFileSync(raw('person.rgb'), person);
    const input = (file: string) => [
      '-f',
      'rawvideo',
      '-pix_fmt',
      'rgb24',
      '-s',
      `${width}x${height}`,
      '-r',
      '30',
      '-i',
      file,
    ];
    const toYuv = ['-vf', 'scale=out_color_matrix=bt709:out_range=tv', '-pix_fmt', 'yuv420p'];
    const tags = [
      '-colorspace',
      'bt709',
      '-color_primaries',
      'bt709',
      '-color_trc',
      'bt709',
      '-color_range',
      'tv',
    ];
    ffmpeg(
      ...input(raw('in.rgb')),
      ...toYuv,
      '-c:v',
      'libx264',
      '-crf',
      '20',
      '-preset',
      'veryfast',
      ...tags,
      path,
    );
    const split = (bytes: Buffer) =>
      Array.from({ length: FRAMES }, (_, n) =>
        bytes.subarray(n * planarSize(width, height), (n + 1) * planarSize(width, height)),
      );
    const truth: Truth = {
      alpha,
      over: split(ffmpeg(...input(raw('person.rgb')), ...toYuv, '-f', 'rawvideo', '-')),
    };
    const frames = split(ffmpeg('-i', path, '-f', 'rawvideo', '-pix_fmt', 'yuv420p', '-'));
    const wall = estimateWall([0, 2, 4, 6].map((n) => planesOf(frames[n]!)))!;
    const ours = await vistum(frames, wall, DEFAULT_KEY.steady);
    const bare = await vistum(frames, wall, 0);
    const best = search(path, wall.color.replace('#', '0x'), alpha);
    const overGrey = `[0:v]${best.filter}[k];color=c=0x808080:s=${width}x${height}:r=30,scale=out_color_matrix=bt709:out_range=tv,format=yuv420p[g];[g][k]overlay=shortest=1:format=yuv420`;
    const theirs: Keyed = {
      alpha: best.alpha,
      over: split(
        ffmpeg(
          '-i',
          path,
          '-filter_complex',
          overGrey,
          '-frames:v',
          String(FRAMES),
          '-f',
          'rawvideo',
          '-pix_fmt',
          'yuv420p',
          '-',
        ),
      ),
    };
    const middle = [0, 1].map(
      (k) => wall.wall[k ? 'v' : 'u'].reduce((a, b) => a + b, 0) / wall.wall.u.length - 128,
    ) as [number, number];
    const length = Math.hypot(...middle);
    const direction = { u: middle[0] / length, v: middle[1] / length };
    const row = (name: string, keyed: Keyed) => [
      name,
      (error(keyed.alpha, alpha) * 100).toFixed(3),
      spill(keyed.over, truth, direction).toFixed(2),
      (flicker(keyed.alpha, alpha) * 100).toFixed(3),
    ];
    console.log(
      `\n### Key of a made presenter (hair, motion blur, uneven light, noise, H.264)\n\n${table(
        ['', 'error of opacity, %', 'wall left, code values', 'flicker, %'],
        [
          row(`Vistum, by itself (tolerance ${wall.tolerance}, softness ${wall.softness})`, ours),
          row('Vistum, each picture by itself', bare),
          row(`FFmpeg ${best.filter}, best of the search`, theirs),
        ],
      )}`,
    );
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
