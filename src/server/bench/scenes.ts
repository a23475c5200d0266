import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { assembleDemo, DEMO_FOOTAGE, type Scenario } from '../../../demo/project';
import { placeFootage } from '@/core/edit/place';
import { DEFAULT_HALO } from '@/core/pointer/halo';
import { createProject, DEFAULT_PLACEMENT } from '@/core/project/create';
import type { Project } from '@/core/project/model';
import type { FootageFacts, Role, Sources } from '@/core/project/sources';
import { parsePointerTrack } from '@/core/telemetry/parse';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import { rateFromNumber, secondsToTicks, type FrameRate } from '@/core/time/ticks';
import type { Size } from '@/core/scale/rect';
import type { Original, RenderTask } from '../export/render-frames';
import { runMedia } from '../media/process';
import { probeMedia } from '../media/probe';
import { wallOf } from '../wall';

const MEDIA = 'demo/media';
export const RATE: FrameRate = rateFromNumber(30);
export const FULL_HD: Size = { width: 1920, height: 1080 };

interface Recording {
  readonly path: string;
  readonly role: Role;
  readonly pointer?: string;
}

/** Recordings as a project knows them; each has its key as its id. */
async function readRecordings(
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
        { path: join(MEDIA, item.file), role: item.role, ...('pointer' in item && { pointer: join(MEDIA, item.pointer) }) },
      ]),
    ),
  );
  const scenario = JSON.parse(await readFile(join(MEDIA, 'scenario.json'), 'utf8')) as Scenario;
  const take = 'presenter-take-2.mp4';
  const wall = await wallOf(join(MEDIA, take), originals[take]!.facts);
  return { project: assembleDemo((file) => file, sources, scenario, wall, counter()), sources, originals, output, rate: RATE };
}
