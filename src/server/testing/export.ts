import { join } from 'node:path';
import type { ExportSettings } from '@/contract/exports';
import { counter, emptyProject } from '@/core/edit/fixture';
import { placeFootage } from '@/core/edit/place';
import type { Project } from '@/core/project/model';
import { rateFromNumber } from '@/core/time/ticks';
import type { RenderTask } from '../export/render-frames';
import { DEFAULT_SETTINGS } from '../export/settings';
import { probeMedia } from '../media/probe';
import { ffmpeg, numberedFrames, scratchFolder } from './media';

/* What tests of exports share: recordings in a folder, projects of them, and how they are exported. */

export const RATE = rateFromNumber(30);
export const settings: ExportSettings = {
  ...DEFAULT_SETTINGS,
  ...{ width: 1280, height: 720, frameRate: RATE },
};
export const control = () => ({ signal: new AbortController().signal, onProgress: () => {} });

const folder = scratchFolder();
export const file = (name: string) => join(folder, name);

/** A project of the given recordings, placed one after the other. */
export async function taskOf(
  files: Record<string, 'screen' | 'presenter' | 'voice'>,
  change: (p: Project) => void = () => {},
): Promise<RenderTask> {
  const project = emptyProject();
  Object.assign(project.canvas, { width: 1280, height: 720 });
  const newId = counter();
  const footage: Record<string, never> = {};
  const originals: Record<string, never> = {};
  for (const [name, role] of Object.entries(files)) {
    const { facts } = await probeMedia(file(name));
    Object.assign(footage, { [name]: { ...facts, id: name, name, role } });
    Object.assign(originals, { [name]: { path: file(name), facts } });
    placeFootage(project, footage[name]!, null, newId);
  }
  change(project);
  return {
    project,
    sources: { footage, pointers: {} },
    originals,
    output: settings,
    rate: settings.frameRate,
  };
}

/**
 * `counted.mp4`: fourteen seconds of numbered frames. Every second begins with a click, so that sound
 * and picture can be held against each other.
 */
export function makeCounted(): void {
  ffmpeg(
    ...numberedFrames(14, '30', '1280x720'),
    '-f',
    'lavfi',
    '-i',
    "aevalsrc='if(lt(mod(n,48000),48),0.8,0)':s=48000:d=14",
    '-c:v',
    'libx264',
    '-preset',
    'ultrafast',
    '-crf',
    '12',
    '-pix_fmt',
    'yuv420p',
    '-c:a',
    'aac',
    '-b:a',
    '192k',
    file('counted.mp4'),
  );
}
