import { readFileSync } from 'node:fs';
import { counter, emptyProject, facts } from '@/core/edit/fixture';
import { placeFootage } from '@/core/edit/place';
import { planProject } from '@/core/framing/plan';
import { viewAt } from '@/core/framing/view';
import { areaOf, intersect, meet, type InFootage } from '@/core/scale/rect';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import { framesPerSecond, secondsToTicks } from '@/core/time/ticks';
import type { ScreenSight } from '@/core/vision/screen-sight';
import { loadKernels } from '@/server/media/node-host';
import { lumaRecording, POINTER_PICTURES } from '@/server/media/luma-recording';
import { probeMedia } from '@/server/media/probe';
import { ScreenSighting } from '@/sight/sight';
import { judgePresses } from './found-presses';
import { table } from './measure';

const RECORDING = 'demo/media/kilnbook-screen.mp4';
const TRACK = 'demo/media/kilnbook-screen.pointer.json';
const FRAME = { width: 1920, height: 1080 };
/** Views are compared each so many seconds. */
const STEP = 0.1;
/** The share of two views that is common to them (Jaccard index). */
function overlap(a: InFootage, b: InFootage): number {
  const common = meet(a, b) ? areaOf(intersect(a, b)) : 0;
  return common / (areaOf(a) + areaOf(b) - common);
}

/**
 * How much framings that are planned from what was found in the demo's recording are like those
 * from the track that was recorded with it.
 */
export async function benchWithheld(): Promise<void> {
  const recorded = JSON.parse(readFileSync(TRACK, 'utf8')) as PointerTrack;
  const { facts: media } = await probeMedia(RECORDING);
  const { size, rate, open, length } = lumaRecording(RECORDING, media, POINTER_PICTURES);
  const pictures = Math.round((length * framesPerSecond(rate)) / 1000);
  const { track, activities, pages } = new ScreenSighting(await loadKernels(), size, rate, {
    ...{ open, pictures, onProgress: () => {} },
  }).run();
  if (!track) throw new Error('No pointer was found in the demo');
  const screen = { ...facts('screen', 'screen', length / 1000), ...size };
  const sight: ScreenSight = { ...size, length, pointer: null, activities, pages };
  const viewsWith = (pointer: PointerTrack) => {
    const project = emptyProject();
    placeFootage(project, screen, 0, counter());
    const sources = {
      footage: { screen },
      pointers: { screen: pointer },
      sights: { screen: sight },
    };
    const { framings } = planProject(project, sources, counter());
    return (seconds: number) =>
      viewAt(framings, 'screen', screen, FRAME, secondsToTicks(seconds)).rect;
  };
  const [wanted, found] = [viewsWith(recorded), viewsWith(track)];
  const times = Array.from({ length: Math.floor(length / 1000 / STEP) }, (_, i) => i * STEP);
  const common = times.map((seconds) => overlap(wanted(seconds), found(seconds)));
  const mean = common.reduce((sum, share) => sum + share, 0) / common.length;
  const presses = judgePresses(recorded, track);
  const percent = (share: number) => `${(100 * share).toFixed(1)} %`;
  console.log(
    table(
      ['its track withheld', 'overlap of views', 'presses, right', 'presses, found'],
      [
        [
          ...['demo', percent(mean), percent(presses.right / presses.said)],
          percent(presses.found / presses.made),
        ],
      ],
    ),
  );
}
