import { Type, type Static } from '@sinclair/typebox';
import type { Callout, Project } from '../project/model';
import { placedSteps } from '../project/query';
import type { Sources } from '../project/sources';
import { intersect, type Rect, type Size } from '../scale/rect';
import { boxInOutput, sceneAt } from '../scene/scene';
import { strict } from '../schema/parts';
import type { Range } from '../time/ranges';
import { frameDuration, ticksToSeconds, type FrameRate, type Ticks } from '../time/ticks';
import { calloutScene } from './callout-layers';

const Seconds = Type.Number({ minimum: 0, description: 'After the video’s start.' });
const Part = Type.Number({ minimum: 0, maximum: 1 });

/** Where a link lies from a time on, until the next place: shares of the picture. */
const Place = strict({ from: Seconds, x: Part, y: Part, width: Part, height: Part });

/** The areas of a video that can be pressed, for whatever plays it. */
export const VideoLinks = strict({
  version: Type.Literal(1),
  links: Type.Array(
    strict({
      start: Seconds,
      end: Seconds,
      label: Type.String({ description: 'What is said of it; empty where nobody has.' }),
      to: Type.Union([
        strict({ address: Type.String({ description: 'http, https or mailto.' }) }),
        strict({ seconds: Seconds, step: Type.String({ description: 'Its title.' }) }),
      ]),
      places: Type.Array(Place, { minItems: 1 }),
    }),
  ),
});
export type VideoLinks = Static<typeof VideoLinks>;
type VideoLink = VideoLinks['links'][number];
type Link = Callout & { readonly kind: 'link' };

/** Areas of which less is to be seen, in output pixels, can't be pressed. */
const LEAST = 4;
const rounded = (value: number, by: number) => Math.round(value * by) / by;
const seconds = (ticks: Ticks) => rounded(ticksToSeconds(ticks), 1000);

/** Where a link leads in a video that shows a range of the timeline; null if that is not in it. */
function targetIn(project: Project, { target }: Link, range: Range): VideoLink['to'] | null {
  if (!target) return null;
  if ('address' in target) return { address: target.address };
  const steps = placedSteps(project);
  const at = steps.findIndex(({ id }) => id === target.stepId);
  const step = steps[at];
  if (!step || step.start >= range.end || (steps[at + 1]?.start ?? Infinity) <= range.start)
    return null;
  const title = step.title || `Step ${at + 1}`;
  return { seconds: seconds(Math.max(0, step.start - range.start)), step: title };
}

/** What of a link is seen at an instant, in output pixels; null where it is too little. */
function placeAt(
  project: Project,
  sources: Sources,
  link: Link,
  time: Ticks,
  output: Size,
): Rect | null {
  const on = calloutScene(sceneAt(project, sources, time, output), link);
  if (!on) return null;
  const seen = intersect(boxInOutput(on, link.rect), { x: 0, y: 0, ...output });
  return seen.width >= LEAST && seen.height >= LEAST ? seen : null;
}

/** So many frames are looked at in one go: some 25 ms. */
const AT_ONCE = 256;

/** Where a link is seen in a video, each time without a break. */
function* runsOf(
  project: Project,
  sources: Sources,
  link: Link,
  range: Range,
  rate: FrameRate,
  output: Size,
): Generator<void, VideoLink[]> {
  const to = targetIn(project, link, range);
  if (!to) return [];
  const frame = frameDuration(rate);
  const runs: VideoLink[] = [];
  let run: VideoLink | null = null;
  let last = '';
  const end = Math.min(link.end, range.end) - range.start;
  const first = Math.ceil(Math.max(0, link.start - range.start) / frame);
  for (let n = first; n * frame < end; n++) {
    if (n % AT_ONCE === 0) yield;
    const now = Math.round(n * frame);
    const place = placeAt(project, sources, link, range.start + now, output);
    if (!place) {
      run = null;
      continue;
    }
    if (!run) runs.push((run = { start: seconds(now), end: 0, label: link.label, to, places: [] }));
    run.end = seconds(Math.min(Math.round((n + 1) * frame), end));
    const shares = {
      ...{ x: rounded(place.x / output.width, 1e5), y: rounded(place.y / output.height, 1e5) },
      width: rounded(place.width / output.width, 1e5),
      height: rounded(place.height / output.height, 1e5),
    };
    const told = JSON.stringify(shares);
    if (run.places.length && told === last) continue;
    run.places.push({ from: seconds(now), ...shares });
    last = told;
  }
  return runs;
}

/**
 * Finds the areas of a video that can be pressed, each for as long as it is seen without a break; those
 * that lead nowhere, or to a step that the video does not show, are none. Long videos take seconds:
 * it pauses now and then, for others to have their turn.
 *
 * @param range what of the timeline the video shows
 * @param rate its frames, at each of which is looked where they are
 */
export function* findLinks(
  project: Project,
  sources: Sources,
  range: Range,
  rate: FrameRate,
  output: Size,
): Generator<void, VideoLinks> {
  const links: VideoLink[] = [];
  for (const link of project.callouts)
    if (link.kind === 'link')
      links.push(...(yield* runsOf(project, sources, link, range, rate, output)));
  return { version: 1, links: links.sort((a, b) => a.start - b.start) };
}
