import { kindOf } from '../callout/kinds';
import { coveredAreas } from '../frame/callout-layers';
import { clipEnd, timelineTime } from '../project/clip-time';
import type { Callout, Clip, Project } from '../project/model';
import type { Sources } from '../project/sources';
import { sceneAt, screenShowing } from '../scene/scene';
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

/** Whether a place of a recording is seen at an instant and nothing covers it. */
function liesBare(
  project: Project,
  sources: Sources,
  footageId: string,
  rect: Rect,
  time: Ticks,
): boolean {
  const scene = sceneAt(project, sources, time);
  const screen = screenShowing(scene, footageId);
  if (!screen) return false;
  const corner = screen.toOutput(rect);
  const size = { width: rect.width * screen.scale, height: rect.height * screen.scale };
  const seen = intersect({ ...corner, ...size }, screen.stage);
  if (areaOf(seen) < 4) return false;
  return !coveredAreas(scene, screen).some((area) => isWithin(padded(seen, -SLACK), area));
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
  return found.flatMap(({ stretches }, index) =>
    stretches.flatMap((stretch) =>
      clips.flatMap((clip): OpenPlace[] => {
        const shown = shownBy(clip, stretch);
        if (!shown) return [];
        const { start, end } = shown;
        const instants = [start + frame, (start + end) / 2, end - frame]
          .map((time) => snapToFrame(Math.min(Math.max(time, start), end - 1), frameRate))
          .filter((time) => time >= start && time < end);
        const at = instants.find((time) =>
          liesBare(project, sources, footageId, stretch.rect, time),
        );
        return at === undefined ? [] : [{ found: index, stretch, clipId: clip.id, start, end, at }];
      }),
    ),
  );
}

/** A cover reaches so much further than what was read, of its height: letters have tails. */
const ROUND = 0.35;
/** Blurs are so strong, of the height of what they hide, and so strong at least. */
const BLUR = { share: 1.2, least: 24, most: 80 };

/** What a cover of what was read at a place hides. */
export const coverRect = (rect: Rect): Rect => padded(rect, Math.max(4, rect.height * ROUND));

/** A cover that is proposed, and what it is for. */
export interface ProposedCover {
  readonly callout: Callout;
  /** Where it was read, in pixels of the recording. */
  readonly marked: Rect;
  /** All that was read of it. */
  readonly stretches: readonly PrivateStretch[];
}

/**
 * Covers for private data that lies bare: one for each thing and clip, where and when it is seen
 * first. That they go along with it has to be asked for apart.
 */
export function coversFor(
  project: Project,
  footageId: string,
  found: readonly PrivateFound[],
  places: readonly OpenPlace[],
  newId: () => string,
): ProposedCover[] {
  const frame = frameDuration(project.canvas.frameRate);
  const firsts = new Map<string, OpenPlace>();
  for (const place of places) {
    const key = `${place.found} ${place.clipId}`;
    const before = firsts.get(key);
    if (!before || place.start < before.start) firsts.set(key, place);
  }
  return [...firsts.values()].map((place) => {
    const { rect } = place.stretch;
    const { kind, stretches } = found[place.found]!;
    const strength = Math.round(
      Math.min(BLUR.most, Math.max(BLUR.least, rect.height * BLUR.share)),
    );
    const made = kindOf({ kind: 'cover' }).create!({
      ...{ at: rect, size: rect, frame: project.canvas },
    });
    const callout = {
      ...made,
      ...{ id: newId(), anchor: { to: 'footage', footageId } },
      start: Math.floor(place.start / frame) * frame,
      end: Math.ceil(place.end / frame) * frame,
      rect: coverRect(rect),
      // Of a key nothing may be left to guess.
      way: kind === 'email' || kind === 'phone' || kind === 'word' ? 'blur' : 'solid',
      strength,
    } as Callout;
    return { callout, marked: rect, stretches };
  });
}
