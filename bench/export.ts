import { execFile } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import type { ExportSettings } from '@/contract/exports';
import { soundSegments, SAMPLE_RATE } from '@/core/audio/mix';
import { videoLayers } from '@/core/frame/plan';
import { planFrame } from '@/core/frame/plan-frame';
import { viewAt } from '@/core/framing/view';
import { frameDuration, secondsToTicks, ticksToSeconds, type Ticks } from '@/core/time/ticks';
import { rawInput, SOUND_INPUT, soundEncoder, videoEncoder } from '@/server/export/encode';
import { exportFile } from '@/server/export/export-file';
import type { RenderTask } from '@/server/export/render-frames';
import { DEFAULT_SETTINGS } from '@/server/export/settings';
import { COLOR_TAGS } from '@/server/media/filters';
import { timeComposing } from './composing';
import { costOf, median, table, type Cost } from './measure';
import { CLOSE, demoTask, FULL_HD, movingTask, RATE, zoomTask } from './scenes';

/*
 * Export against what it can't do without (decoding all sources and encoding the finished picture
 * and sound), against one filter graph, and against plain decoding and encoding of the screen
 * recording. Ways in turn; the host's speed changes within minutes, so that ways are compared
 * within each round, and the median of the rounds counts.
 */
/** Of FFmpeg's filter, in code values either way. */
const NOISE = 12;
const ROUNDS = Number(process.env.VISTUM_BENCH_ROUNDS ?? 3);
/** Parts of the floor, measured once: they only tell where its time goes. */
const PARTS = ['decode', 'encode'];
/** A folder in memory, so that reading from it costs next to nothing. */
const MEMORY = '/dev/shm/vistum-bench';
const run = promisify(execFile);
const ffmpeg = (...args: string[]) =>
  run('ffmpeg', ['-v', 'error', '-nostdin', '-y', ...args], { maxBuffer: 1 << 26 });

interface Scene {
  readonly name: string;
  readonly task: RenderTask;
  readonly start: number;
  readonly seconds: number;
  /** More ways to do the same, by name. */
  readonly others: Readonly<Record<string, (out: string) => Promise<unknown>>>;
}

const settingsOf = (
  { task, start, seconds }: Scene,
  more: Partial<ExportSettings> = {},
): ExportSettings => ({
  ...DEFAULT_SETTINGS,
  ...task.output,
  frameRate: RATE,
  range: { start, end: start + seconds },
  ...more,
});

const framesOf = ({ start, seconds }: Pick<Scene, 'start' | 'seconds'>): Ticks[] =>
  Array.from({ length: seconds * 30 }, (_, i) => secondsToTicks(start) + i * frameDuration(RATE));

/** Arguments for FFmpeg that decode a stretch of a recording and throw it away. */
const decoding = (
  path: string,
  from: number,
  seconds: number,
  streams: '-an' | '-vn',
): string[] => ['-ss', String(from), '-t', String(seconds), '-i', path, streams, '-f', 'null', '-'];

/** The stretch of each clip that the scene shows or plays, as arguments for FFmpeg. */
function stretches({ task, start, seconds }: Scene): string[][] {
  const seen = new Map<string, { path: string; from: number; to: number }>();
  for (const time of framesOf({ start, seconds }))
    for (const layer of videoLayers(
      planFrame(task.project, task.sources, time, task.output).layers,
    )) {
      const at = ticksToSeconds(layer.time);
      const known = seen.get(layer.clipId);
      seen.set(layer.clipId, {
        path: task.originals[layer.footageId]!.path,
        from: known?.from ?? at,
        to: at + 1 / 30,
      });
    }
  const heard = soundSegments(task.project, task.sources).flatMap((segment) => {
    const [first, last] = [
      Math.max(start, segment.start / SAMPLE_RATE),
      Math.min(start + seconds, segment.end / SAMPLE_RATE),
    ];
    const from =
      segment.source / SAMPLE_RATE + (first - segment.start / SAMPLE_RATE) * segment.speed;
    return first < last
      ? [
          decoding(
            task.originals[segment.footageId]!.path,
            from,
            (last - first) * segment.speed,
            '-vn',
          ),
        ]
      : [];
  });
  return [
    ...[...seen.values()].map(({ path, from, to }) => decoding(path, from, to - from, '-an')),
    ...heard,
  ];
}

const renderTo = (scene: Scene, out: string, more: Partial<ExportSettings> = {}) => {
  const work = mkdtempSync(join(tmpdir(), 'vistum-bench-work-'));
  return exportFile(scene.task, settingsOf(scene, more), work, out, {
    signal: new AbortController().signal,
    onProgress: () => {},
  }).finally(() => rmSync(work, { recursive: true, force: true }));
};

/**
 * Costs a frame in milliseconds, and how many times as fast Vistum was in each round, the least
 * first.
 */
interface Measured extends Cost {
  readonly faster: readonly number[];
}

async function measure(scene: Scene, folder: string): Promise<Record<string, Measured>> {
  const frames = scene.seconds * 30;
  const out = join(folder, 'out.mp4');
  await renderTo(scene, out);
  mkdirSync(MEMORY, { recursive: true });
  const raw = join(MEMORY, 'composite.yuv');
  await ffmpeg('-i', out, '-an', '-f', 'rawvideo', '-pix_fmt', 'yuv420p', raw);
  const encoder = videoEncoder(settingsOf(scene));
  const encodeRaw = () =>
    ffmpeg(
      ...rawInput(scene.task.output, RATE).map((a) => (a === 'pipe:0' ? raw : a)),
      ...encoder,
      join(folder, 'floor.mp4'),
    );
  const decodes = stretches(scene);
  // What is heard is decoded and encoded as well.
  const mix = join(MEMORY, 'mix.raw');
  const sounds = soundSegments(scene.task.project, scene.task.sources).length > 0;
  if (sounds) await ffmpeg('-i', out, '-vn', '-f', 'f32le', '-ar', '48000', '-ac', '2', mix);
  const encodeMix = () =>
    sounds
      ? ffmpeg(
          ...SOUND_INPUT.map((a) => (a === 'pipe:0' ? mix : a)),
          ...soundEncoder('mp4'),
          join(folder, 'floor.m4a'),
        )
      : null;
  const ways: Record<string, () => Promise<unknown>> = {
    vistum: () => renderTo(scene, out),
    floor: () => Promise.all([...decodes.map((args) => ffmpeg(...args)), encodeRaw(), encodeMix()]),
    decode: () => Promise.all(decodes.map((args) => ffmpeg(...args))),
    encode: () => Promise.all([encodeRaw(), encodeMix()]),
    ...Object.fromEntries(
      Object.entries(scene.others).map(([name, way]) => [
        name,
        () => way(join(folder, `${name}.mp4`)),
      ]),
    ),
  };
  const costs: Record<string, Cost[]> = {};
  for (let round = 0; round < ROUNDS; round++)
    for (const [name, way] of Object.entries(ways))
      if (!round || !PARTS.includes(name)) (costs[name] ??= []).push(await costOf(way));
  const per = (list: Cost[], key: keyof Cost) => (median(list.map((c) => c[key])) / frames) * 1000;
  const faster = (list: Cost[]) =>
    list.map(({ wall }, round) => wall / costs.vistum![round]!.wall).sort((a, b) => a - b);
  return Object.fromEntries(
    Object.entries(costs).map(([name, list]) => [
      name,
      {
        wall: per(list, 'wall'),
        own: per(list, 'own'),
        children: per(list, 'children'),
        faster: faster(list),
      },
    ]),
  );
}

const fps = (cost: Cost) => (1000 / cost.wall).toFixed(1);
const processor = ({ own, children }: Cost) => (own + children).toFixed(1);

async function report(scene: Scene, folder: string): Promise<void> {
  const costs = await measure(scene, folder);
  const { plan, read, compose: each } = await timeComposing(scene.task, framesOf(scene));
  const compose = each.reduce((a, b) => a + b, 0) / each.length;
  const { vistum, floor } = costs as { vistum: Measured; floor: Measured };
  console.log(`\n### ${scene.name}\n`);
  console.log(
    table(
      ['way', 'fps', 'processor ms a frame', 'Vistum is so many times as fast (rounds)'],
      Object.entries(costs)
        .filter(([name]) => !PARTS.includes(name))
        .map(([name, cost]) => [
          name,
          fps(cost),
          processor(cost),
          name === 'vistum'
            ? ''
            : `${median(cost.faster).toFixed(2)} (${cost.faster[0]!.toFixed(2)} to ${cost.faster.at(-1)!.toFixed(2)})`,
        ]),
    ),
  );
  const rest = vistum.own + vistum.children - plan - compose - read;
  console.log(
    `\nOf Vistum's ${processor(vistum)} ms: planning ${plan.toFixed(1)}, composing ${compose.toFixed(1)}, reading from the decoders ${read.toFixed(1)}, ` +
      `and ${rest.toFixed(1)} for decoders, encoder, their pipes, sound and starting. Of the floor's ${processor(floor)} ms decoding is ` +
      `${processor(costs.decode!)} and encoding ${processor(costs.encode!)}.`,
  );
}

/**
 * One FFmpeg filter graph for the moving view: it zooms in whole pixels, and its words have no
 * arrow.
 */
function filterGraph(task: RenderTask, folder: string, seconds: number) {
  const half = (seconds * 30) / 2;
  const closest = viewAt(
    task.project.framings,
    'screen',
    task.sources.footage.screen!,
    FULL_HD,
    secondsToTicks(seconds / 2),
  ).rect;
  const ramp = `if(lt(on,${half}),on/${half},1-(on-${half})/${half})`;
  const ease = `(st(0,${ramp})*0+ld(0)*ld(0)*(3-2*ld(0)))`;
  const color = task.project.keys[0]!.color.replace('#', '0x');
  const graph =
    `[0:v]split[a][b];[b]crop=500:300:900:500,boxblur=16:3[bl];[a][bl]overlay=900:500,` +
    `zoompan=z='1+${(2560 / closest.width - 1).toFixed(4)}*${ease}':x='${CLOSE.x}*${ease}':y='${CLOSE.y}*${ease}':d=1:s=1920x1080:fps=30[s];` +
    `[1:v]crop=604:604:338:0,chromakey=${color}:0.12:0.06,scale=324:324:flags=bicubic,format=yuva420p,split[k][e];` +
    `[e]alphaextract[ka];[ka][2:v]blend=all_mode=multiply:shortest=1[m];[k][m]alphamerge[p];` +
    `[s][p]overlay=1558:718,drawtext=text='Name it':x=500:y=260:fontsize=38:fontcolor=white:box=1:boxcolor=0x8e3f66:boxborderw=12[o]`;
  const mask = join(folder, 'mask.png');
  return async (out: string) => {
    await ffmpeg(
      '-f',
      'lavfi',
      '-i',
      "color=c=black:s=324x324,format=gray,geq=lum='255*lt(hypot(X-162,Y-162),162)'",
      '-frames:v',
      '1',
      mask,
    );
    const inputs = [
      '-i',
      task.originals.screen!.path,
      '-i',
      task.originals.camera!.path,
      '-loop',
      '1',
      '-r',
      '30',
      '-i',
      mask,
    ];
    const encoder = videoEncoder({ ...DEFAULT_SETTINGS, frameRate: RATE });
    return ffmpeg(
      ...inputs,
      '-filter_complex',
      graph,
      '-map',
      '[o]',
      '-frames:v',
      String(seconds * 30),
      ...encoder,
      out,
    );
  };
}

/** Decoding and encoding the screen recording as it is, nothing composed. */
const plain =
  ({ task, start, seconds }: Pick<Scene, 'task' | 'start' | 'seconds'>, id: string) =>
  (out: string) =>
    ffmpeg(
      '-ss',
      String(start),
      '-t',
      String(seconds),
      '-i',
      task.originals[id]!.path,
      '-an',
      ...videoEncoder({ ...DEFAULT_SETTINGS, frameRate: RATE }),
      out,
    );

const demoScene = async () => ({ task: await demoTask(), start: 8, seconds: 48 });

async function inFolder(work: (folder: string) => Promise<void>): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'vistum-bench-'));
  try {
    await work(folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
    rmSync(MEMORY, { recursive: true, force: true });
  }
}

/** The scenes, by what `VISTUM_BENCH_SCENE` chooses one with. */
const SCENES: Readonly<Record<string, (folder: string) => Promise<Scene>>> = {
  demo: async () => {
    const demo = await demoScene();
    return {
      ...demo,
      name: 'The demo from 8 s to 56 s, 1080p30',
      others: { plain: plain(demo, 'kilnbook-screen.mp4') },
    };
  },
  view: async (folder) => {
    const zoom = { task: await zoomTask(folder, 20), start: 0, seconds: 20 };
    const others = {
      'filter graph': filterGraph(zoom.task, folder, 20),
      plain: plain(zoom, 'screen'),
    };
    return {
      ...zoom,
      name: 'A view that moves all the time, keyed round presenter, blur, words',
      others,
    };
  },
  worst: async (folder) => {
    const moving = { task: await movingTask(folder, 16, FULL_HD), start: 0, seconds: 16 };
    return { ...moving, name: 'Worst case: every pixel moves, eight layers', others: {} };
  },
};

export const benchExport = (): Promise<void> =>
  inFolder(async (folder) => {
    const chosen = process.env.VISTUM_BENCH_SCENE;
    for (const [name, scene] of Object.entries(SCENES))
      if (!chosen || chosen === name) await report(await scene(folder), folder);
  });

/** The demo with a noisy presenter, and what taking the noise out brings. */
export const benchNoise = (): Promise<void> =>
  inFolder(async (folder) => {
    const demo = await demoScene();
    const name = 'The demo from 8 s to 56 s, a sensor’s noise in the presenter';
    const noisy = { ...demo, task: await withNoise(demo.task, folder), name, others: {} };
    await report(noisy, folder);
    await benchCalm(noisy, folder);
  });

/**
 * The same with noise in the presenter's recordings as a sensor makes it in the light of a room.
 */
async function withNoise(task: RenderTask, folder: string): Promise<RenderTask> {
  const originals = { ...task.originals };
  for (const [id, original] of Object.entries(originals)) {
    if (task.sources.footage[id]?.role !== 'presenter') continue;
    const path = join(folder, `noisy-${id}`);
    const picture = [
      '-vf',
      `noise=alls=${NOISE}:allf=t`,
      '-c:v',
      'libx264',
      '-preset',
      'veryfast',
      '-crf',
      '18',
      '-pix_fmt',
      'yuv420p',
    ];
    await ffmpeg('-i', original.path, ...picture, ...COLOR_TAGS, '-c:a', 'copy', path);
    originals[id] = { ...original, path };
  }
  return { ...task, originals };
}

/** What taking the presenter's noise out brings. */
async function benchCalm(scene: Scene, folder: string): Promise<void> {
  const rows: (string | number)[][] = [];
  const frames = scene.seconds * 30;
  for (const calm of [false, true]) {
    const out = join(folder, `calm-${calm}.mp4`);
    const costs: Cost[] = [];
    for (let round = 0; round < ROUNDS; round++)
      costs.push(await costOf(() => renderTo(scene, out, { calm })));
    const per = (of: (cost: Cost) => number) => median(costs.map(of)) / frames;
    rows.push([
      calm ? 'taken out' : 'left',
      (1 / per((c) => c.wall)).toFixed(1),
      (per((c) => c.own + c.children) * 1000).toFixed(1),
      (statSync(out).size / 1e6).toFixed(2),
    ]);
  }
  console.log(
    `\n### The presenter's noise, same stretch\n\n${table(['noise', 'fps', 'processor ms a frame', 'MB'], rows)}`,
  );
}
