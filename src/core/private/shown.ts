import { coveredOnFrame, coveredOnRecording } from '../frame/callout-layers';
import { clipEnd, timelineTime } from '../project/clip-time';
import type { Clip, Project } from '../project/model';
import type { Sources } from '../project/sources';
import { boxInOutput, sceneAt, screenShowing, uprightOf } from '../scene/scene';
import { areaOf, intersect, isWithin, padded, type Rect } from '../scale/rect';
import { frameDuration, secondsToTicks, snapToFrame, type Ticks } from '../time/ticks';
import type { PrivateFound, PrivateStretch } from './log';

/** Private data that the timeline shows, and that no cover hides. */
export interface OpenPlace {
  /** Which of what was found, by its number. */
  readonly found: number;
  readonly stretch: PrivateStretch;
  readonly clipId: string;
  /** When it is seen, on the timeline. */
  readonly start: Ticks;
  readonly end: Ticks;
  /** The first instant that was looked at at which it lies bare. */
  readonly at: Ticks;
}

/** Edges of covers may lie so far within what was read, in output pixels. */
const SLACK = 2;

/** When a clip shows a stretch of its recording, on the timeline; null where it does not. */
function shownBy(clip: Clip, { from, to }: PrivateStretch): { start: Ticks; end: Ticks } | null {
  const [first, last] = [secondsToTicks(from / 1000), secondsToTicks(to / 1000)];
  if (clip.speed === 0)
    return clip.source >= first && clip.source < last
      ? { start: clip.start, end: clipEnd(clip) }
      : null;
  const start = Math.max(clip.start, timelineTime(clip, first));
  const end = Math.min(clipEnd(clip), timelineTime(clip, last));
  return end > start ? { start, end } : null;
}

/** How a recording is seen at an instant, and what covers hide of it; null where it is not seen. */
function momentAt(project: Project, sources: Sources, footageId: string, time: Ticks) {
  const scene = sceneAt(project, sources, time);
  const screen = screenShowing(scene, footageId);
  if (!screen) return null;
  const upright = uprightOf(scene, screen);
  return {
    screen,
    upright: upright.screen,
    onRecording: coveredOnRecording(upright.scene, upright.screen),
    onFrame: coveredOnFrame(scene),
  };
}

/** Whether a place of a recording is seen at an instant and nothing covers it. */
function liesBare(rect: Rect, moment: ReturnType<typeof momentAt>): boolean {
  if (!moment) return false;
  const { screen, upright, onRecording, onFrame } = moment;
  const seenIn = (view: typeof screen) => intersect(boxInOutput(view, rect), view.stage);
  const [seen, before] = [seenIn(screen), seenIn(upright)];
  if (areaOf(seen) < 4) return false;
  const hides = (covers: readonly Rect[], what: Rect) =>
    covers.some((area) => isWithin(padded(what, -SLACK), area));
  return !hides(onRecording, before) && !hides(onFrame, seen);
}

/**
 * What of the private data that was found in a recording lies bare somewhere on the timeline. Each
 * stretch is looked at at its beginning, in its middle and at its end.
 */
export function openPlaces(
  project: Project,
  sources: Sources,
  footageId: string,
  found: readonly PrivateFound[],
): OpenPlace[] {
  const { frameRate } = project.canvas;
  const frame = frameDuration(frameRate);
  const clips = project.lanes
    .filter(({ kind }) => kind === 'screen')
    .flatMap((lane) => lane.clips.filter((clip) => clip.footageId === footageId));
  // Lines of one page come and go together: each instant is looked at once.
  const moments = new Map<Ticks, ReturnType<typeof momentAt>>();
  const momentOf = (time: Ticks) => {
    if (!moments.has(time)) moments.set(time, momentAt(project, sources, footageId, time));
    return moments.get(time)!;
  };
  return found.flatMap(({ stretches }, index) =>
    stretches.flatMap((stretch) =>
      clips.flatMap((clip): OpenPlace[] => {
        const shown = shownBy(clip, stretch);
        if (!shown) return [];
        const { start, end } = shown;
        const instants = [start + frame, (start + end) / 2, end - frame]
          .map((time) => snapToFrame(Math.min(Math.max(time, start), end - 1), frameRate))
          .filter((time) => time >= start && time < end);
        const at = instants.find((time) => liesBare(stretch.rect, momentOf(time)));
        return at === undefined ? [] : [{ found: index, stretch, clipId: clip.id, start, end, at }];
      }),
    ),
  );
}
