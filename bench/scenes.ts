import { PLAIN_LINES } from '@/core/callout/kinds/two-points';
import { PLAIN_TEXT } from '@/core/callout/kinds/text';
import { UNPOSED } from '@/core/callout/keyframes';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { assembleDemo, DEMO_FOOTAGE, type Scenario } from '@/server/demo/assemble';
import { USUAL_MOTION } from '@/core/callout/motion';
import { changeKey, DEFAULT_KEY } from '@/core/edit/settings';
import { placeFootage } from '@/core/edit/place';
import { newLook, pointerSpan } from '@/core/pointer/model';
import { createProject, DEFAULT_PLACEMENT } from '@/core/project/create';
import type { FootageKey, Project } from '@/core/project/model';
import type { FootageFacts, Role, Sources } from '@/core/project/sources';
import { parsePointerTrack } from '@/core/telemetry/parse';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import { rateFromNumber, secondsToTicks, type FrameRate } from '@/core/time/ticks';
import type { Size } from '@/core/scale/rect';
import type { Original, RenderTask } from '@/server/export/render-frames';
import { runMedia } from '@/server/media/process';
import { probeMedia } from '@/server/media/probe';
import { wallOf } from '@/server/analyses/wall';

const MEDIA = 'demo/media';
/** Key frames as far apart as in the demo's recordings. */
const KEY_FRAMES = ['-g', '120'];
export const RATE: FrameRate = rateFromNumber(30);
export const FULL_HD: Size = { width: 1920, height: 1080 };

interface Recording {
  readonly path: string;
  readonly role: Role;
  readonly pointer?: string;
}

/** Recordings as a project knows them; each has its key as its id. */
export async function readRecordings(
  recordings: Readonly<Record<string, Recording>>,
): Promise<{ sources: Sources; originals: Record<string, Original> }> {
  const footage: Record<string, FootageFacts> = {};
  const originals: Record<string, Original> = {};
  const pointers: Record<string, PointerTrack> = {};
  for (const [id, { path, role, pointer }] of Object.entries(recordings)) {
    const { facts } = await probeMedia(path);
    footage[id] = { ...facts, id, name: id, role };
    originals[id] = { path, facts };
    if (pointer) pointers[id] = parsePointerTrack(await readFile(pointer, 'utf8'), facts).track;
  }
  return { sources: { footage, pointers }, originals };
}

const counter = () => {
  let n = 0;
  return () => `b${n++}`;
};

/** The demo project over the demo's recordings, without a database. */
export async function demoTask(output: Size = FULL_HD): Promise<RenderTask> {
  const { sources, originals } = await readRecordings(
    Object.fromEntries(
      DEMO_FOOTAGE.map((item) => [
        item.file,
        {
          path: join(MEDIA, item.file),
          role: item.role,
          ...('pointer' in item && { pointer: join(MEDIA, item.pointer) }),
        },
      ]),
    ),
  );
  const scenario = JSON.parse(await readFile(join(MEDIA, 'scenario.json'), 'utf8')) as Scenario;
  const take = 'presenter-take-2.mp4';
  const wall = await wallOf(join(MEDIA, take), originals[take]!.facts);
  return {
    project: assembleDemo((file) => file, sources, scenario, wall, counter()),
    sources,
    originals,
    output,
    rate: RATE,
  };
}

const ffmpeg = (...args: string[]) =>
  runMedia('ffmpeg', ['-v', 'error', '-nostdin', '-y', ...args]);

/** A project over two recordings, the presenter keyed, round and in the corner. */
function cornerProject(sources: Sources, key: Partial<FootageKey>): Project {
  const project = structuredClone(createProject(FULL_HD.width, FULL_HD.height, RATE));
  const newId = counter();
  for (const facts of Object.values(sources.footage)) placeFootage(project, facts, 0, newId);
  changeKey(project, 'camera', key);
  project.presenter = {
    ...DEFAULT_PLACEMENT,
    size: 0.3,
    ring: { width: 0, color: '#000000', second: null, gap: 0 },
  };
  return project;
}

/** The part of the screen that the closer view of `zoomTask` shows. */
export const CLOSE = { x: 400, y: 200, width: 1920, height: 1080 };

/** Two files of a length: the demo's screen and its presenter. */
async function shortRecordings(folder: string, seconds: number) {
  const [screen, camera] = [join(folder, 'screen.mp4'), join(folder, 'camera.mp4')];
  await ffmpeg(
    '-ss',
    '20',
    '-i',
    join(MEDIA, 'kilnbook-screen.mp4'),
    '-t',
    String(seconds),
    '-an',
    '-c:v',
    'libx264',
    '-crf',
    '19',
    ...KEY_FRAMES,
    screen,
  );
  await ffmpeg(
    '-stream_loop',
    '3',
    '-i',
    join(MEDIA, 'presenter-take-2.mp4'),
    '-t',
    String(seconds),
    '-an',
    '-c',
    'copy',
    camera,
  );
  return readRecordings({
    screen: { path: screen, role: 'screen' },
    camera: { path: camera, role: 'presenter' },
  });
}

/**
 * The view moves all the time; a keyed round presenter, a blur and words with it: what one filter
 * graph can do as well.
 */
export async function zoomTask(folder: string, seconds: number): Promise<RenderTask> {
  const { sources, originals } = await shortRecordings(folder, seconds);
  const wall = await wallOf(originals.camera!.path, originals.camera!.facts);
  const project = cornerProject(sources, wall ?? DEFAULT_KEY);
  const end = secondsToTicks(seconds);
  project.framings.push({
    id: 'f',
    start: 0,
    end,
    rampIn: end / 2,
    rampOut: end / 2,
    footageId: 'screen',
    rect: CLOSE,
    endRect: null,
    pinned: true,
    reason: '',
  });
  project.callouts.push(
    {
      id: 'c',
      start: 0,
      end,
      anchor: { to: 'footage', footageId: 'screen' },
      ...UNPOSED,
      kind: 'cover',
      way: 'blur',
      color: '#1e2a32',
      rect: { x: 900, y: 500, width: 500, height: 300 },
      strength: 16,
    },
    {
      id: 't',
      start: 0,
      end,
      anchor: { to: 'footage', footageId: 'screen' },
      ...UNPOSED,
      kind: 'text',
      text: 'Name it',
      tip: { x: 1200, y: 560 },
      offset: { dx: -300, dy: -150 },
      size: 38,
      fill: '#8e3f66',
      ink: '#ffffff',
      arrow: true,
      ...{ ...PLAIN_TEXT, ...USUAL_MOTION },
    },
  );
  return { project, sources, originals, output: FULL_HD, rate: RATE };
}

/** Layers of `movingTask` from back to front, each added to those before. */
export const LAYERS = [
  'screen',
  'presenter',
  'blur',
  'second blur',
  'halo',
  'pointer',
  'words',
  'drawing',
] as const;

/**
 * A synthetic worst case: a screen on which every pixel changes in every frame, a view that moves
 * all the time, and up to seven layers above it that move with it.
 */
export async function movingTask(
  folder: string,
  seconds: number,
  output: Size,
  layers: number = LAYERS.length,
): Promise<RenderTask> {
  const [screen, camera] = [
    join(folder, `moving-${output.height}.mp4`),
    join(folder, 'camera.mp4'),
  ];
  const even = (n: number) => Math.round(n / 2) * 2;
  const size = { width: even((output.width * 4) / 3), height: even((output.height * 4) / 3) };
  const noise = `testsrc2=s=${size.width}x${size.height}:r=30:d=${seconds},scroll=h=0.004:v=0.003,format=yuv420p`;
  await ffmpeg(
    '-f',
    'lavfi',
    '-i',
    noise,
    '-c:v',
    'libx264',
    '-preset',
    'veryfast',
    '-crf',
    '20',
    ...KEY_FRAMES,
    screen,
  );
  await ffmpeg(
    '-stream_loop',
    '3',
    '-i',
    join(MEDIA, 'presenter-take-2.mp4'),
    '-t',
    String(seconds),
    '-an',
    '-c',
    'copy',
    camera,
  );
  const { sources, originals } = await readRecordings({
    screen: { path: screen, role: 'screen' },
    ...(layers > 1 && { camera: { path: camera, role: 'presenter' } }),
  });
  const has = (name: (typeof LAYERS)[number]) => LAYERS.indexOf(name) < layers;
  const project = cornerProject(
    sources,
    (has('presenter') && (await wallOf(camera, originals.camera!.facts))) || DEFAULT_KEY,
  );
  Object.assign(project.canvas, output);
  const end = secondsToTicks(seconds);
  const at = (x: number, y: number) => ({
    x: Math.round(x * size.width),
    y: Math.round(y * size.height),
  });
  const rect = (x: number, y: number, width: number, height: number) => ({
    ...at(x, y),
    width: Math.round((width * size.width) / 2) * 2,
    height: Math.round((height * size.height) / 2) * 2,
  });
  project.framings.push({
    id: 'f',
    start: 0,
    end,
    rampIn: end / 2,
    rampOut: end / 2,
    footageId: 'screen',
    rect: rect(0.15, 0.15, 0.6, 0.6),
    endRect: null,
    pinned: true,
    reason: '',
  });
  const callout = {
    start: 0,
    end,
    anchor: { to: 'footage', footageId: 'screen' },
    ...UNPOSED,
  } as const;
  if (has('blur'))
    project.callouts.push({
      ...callout,
      id: 'c1',
      kind: 'cover',
      way: 'blur',
      color: '#1e2a32',
      rect: rect(0.3, 0.3, 0.2, 0.2),
      strength: 16,
    });
  if (has('second blur'))
    project.callouts.push({
      ...callout,
      id: 'c2',
      kind: 'cover',
      way: 'blur',
      color: '#1e2a32',
      rect: rect(0.55, 0.5, 0.15, 0.2),
      strength: 16,
    });
  if (has('halo')) project.pointer.push(pointerSpan('p', { start: 0, end }, [newLook('halo')]));
  if (has('words'))
    project.callouts.push({
      ...callout,
      id: 't',
      kind: 'text',
      text: 'Name it',
      tip: at(0.5, 0.4),
      offset: { dx: -200, dy: -100 },
      size: output.height / 28,
      fill: '#8e3f66',
      ink: '#ffffff',
      arrow: true,
      ...{ ...PLAIN_TEXT, ...USUAL_MOTION },
    });
  if (has('drawing'))
    project.callouts.push({
      ...callout,
      id: 's',
      kind: 'ellipse',
      from: at(0.25, 0.55),
      to: at(0.4, 0.7),
      width: 8,
      color: '#c2412d',
      ...{ ...PLAIN_LINES, ...USUAL_MOTION },
    });
  const samples = Array.from({ length: seconds * 60 }, (_, i): [number, number, number] => {
    const angle = i / 40;
    const { x, y } = at(0.45 + 0.2 * Math.cos(angle), 0.45 + 0.2 * Math.sin(angle));
    return [(i * 1000) / 60, x, y];
  });
  const pointer: PointerTrack = {
    format: 'vistum-pointer',
    version: 1,
    ...size,
    samples,
    events: [],
    inPicture: !has('pointer'),
  };
  return {
    project,
    sources: { ...sources, pointers: { screen: pointer } },
    originals,
    output,
    rate: RATE,
  };
}
