import { clipEnd, clockSpeed, MOST_CLOCK, ownSpeed, timelineTime } from '../project/clip-time';
import type { Clip, Project } from '../project/model';
import { findClip } from '../project/query';
import type { Sources } from '../project/sources';
import { frameDuration, secondsToTicks, type Ticks } from '../time/ticks';
import { EditError } from './error';
import { followClips } from './follow';
import { freeLane, isFree } from './lanes';
import { sortLane, unlockedClip, type Found } from './lookup';

/** How one recording lies against another: `Alignment` as far as clips need it. */
export interface Heard {
  /** When the second begins, in seconds after the first. */
  readonly offset: number;
  /** How much longer the second takes by the first one's clock, in millionths. */
  readonly ppm: number;
}

/** How a clip is to be changed so that it is in line with another. */
export interface InLine {
  /** How far it is to be moved. */
  readonly by: Ticks;
  /** The clock that its speed is to make up for, in millionths; null leaves its speed. */
  readonly clock: number | null;
  /** How far apart what both heard is then at the ends of what both show. */
  readonly apart: Ticks;
}

/**
 * Clocks that part two clips by less are left alone: so near, nothing is heard twice, in seconds.
 */
const TOGETHER = 0.002;

/**
 * How far a clip is to be moved so that it shows what its recording heard when another clip shows
 * it. A clock that differs is made up for at the clip's own speed; at others the clips agree in the
 * middle of what both show.
 *
 * @param still the clip that stays
 * @param moved one of the recording that begins `heard.offset` after that of the other
 * @throws EditError for clips that do not run alike
 */
export function inLine(still: Clip, moved: Clip, { offset, ppm }: Heard): InLine {
  const own = ownSpeed(moved);
  if (ownSpeed(still) !== own || !own)
    throw new EditError(
      'Clips of different speed can’t be brought in line. Give them the same speed first.',
    );
  const rate = ppm * 1e-6;
  /** When the first one's recording has what the second one's has. */
  const there = (source: Ticks): Ticks =>
    Math.round(source + secondsToTicks(offset) + source * rate);
  /** The part of the second one's recording that both show. */
  const back = (source: Ticks): Ticks => (source - secondsToTicks(offset)) / (1 + rate);
  const end = (clip: Clip) => clip.source + clip.duration * clip.speed;
  const from = Math.max(moved.source, back(still.source));
  const to = Math.min(end(moved), back(end(still)));
  const middle = Math.round(to > from ? (from + to) / 2 : moved.source);
  // Against the timeline, by which the other one may make up for a clock itself.
  const off = ((1 + rate) * own) / still.speed - 1;
  const parted = (Math.abs(off) * Math.max(0, to - from)) / 2 / own;
  const clock = off * 1e6;
  if (own === 1 && Math.abs(clock) < MOST_CLOCK && parted > secondsToTicks(TOGETHER)) {
    const by = timelineTime(still, there(moved.source)) - moved.start;
    return { by, clock, apart: 0 };
  }
  const by = timelineTime(still, there(middle)) - timelineTime({ ...moved, speed: own }, middle);
  return { by, clock: own === moved.speed ? null : 0, apart: Math.round(parted) };
}

/** A clip that is to be brought in line, and how (`InLine`). */
export interface LineUpPart extends Pick<InLine, 'by' | 'clock'> {
  readonly clipId: string;
}

/**
 * Moves clips so far as it is told and has them make up for their clocks, each with what is linked
 * to it of the same recording and with nothing else, so that recordings which are linked can be
 * brought in line as well. A clip begins on a frame: what is before goes from its beginning, as
 * does what would lie before the tutorial. One that finds something in its place goes onto another
 * lane of its kind. What makes up for another clock than what it is linked to is linked to its own
 * recording only.
 *
 * @throws EditError where nothing of a clip would be left
 */
export function lineUp(
  project: Project,
  parts: readonly LineUpPart[],
  sources: Sources,
  newId: () => string,
): void {
  const frame = frameDuration(project.canvas.frameRate);
  const all = parts.flatMap(({ clipId, by, clock }) => {
    const { link, footageId } = unlockedClip(project, clipId).clip;
    const alike = (clip: Clip) => clip.link === link && clip.footageId === footageId;
    const ids = link ? project.lanes.flatMap(({ clips }) => clips.filter(alike)) : [];
    return [...new Set([clipId, ...ids.map(({ id }) => id)])].map((id) => ({
      ...unlockedClip(project, id),
      ...{ by, clock },
    }));
  });
  const moving = new Map(all.map((one) => [one.clip.id, one]));
  // All of them leave first: one may go where another was.
  for (const { lane, clip } of moving.values())
    lane.clips = lane.clips.filter(({ id }) => id !== clip.id);
  const links = new Map<string, string>();
  for (const { lane, clip, by, clock } of moving.values()) {
    if (clock !== null && ownSpeed(clip) === 1) clip.speed = clockSpeed(clock);
    const { link } = clip;
    if (link !== null && others(project, moving, link).some(({ speed }) => speed !== clip.speed)) {
      if (!links.has(link)) links.set(link, newId());
      clip.link = links.get(link)!;
    }
    const before = { footageId: clip.footageId, start: clip.start, end: clipEnd(clip) };
    const wanted = clip.start + by;
    const start = Math.max(0, Math.ceil(wanted / frame) * frame);
    clip.source += Math.round((start - wanted) * clip.speed);
    // A quicker clip would come to the end of its footage sooner.
    const footage = sources.footage[clip.footageId];
    const left =
      clip.speed && footage && footage.kind !== 'image'
        ? (footage.duration - clip.source) / clip.speed
        : Infinity;
    const duration = Math.floor(Math.min(clip.duration - (start - wanted), left) / frame) * frame;
    if (duration <= 0)
      throw new EditError(
        'What they have in common lies before the tutorial begins. Move the clip that stays ' +
          'further back first.',
      );
    Object.assign(clip, { start, duration });
    const times = { start, end: start + duration };
    const target = isFree(lane, times) ? lane : freeLane(project, lane.kind, times, newId);
    target.clips.push(clip);
    sortLane(target);
    if (lane.kind === 'screen') followClips(project, [before], by, new Set());
  }
}

/** What is linked by a link and stays where it is. */
const others = (project: Project, moving: ReadonlyMap<string, unknown>, link: string): Clip[] =>
  project.lanes.flatMap(({ clips }) => clips.filter((c) => c.link === link && !moving.has(c.id)));

/** Of clips that are brought in line the one that stays: what hangs on a screen stays with it. */
export function stillOf(project: Project, ids: readonly string[]): string | null {
  const found = ids.flatMap((id) => findClip(project, id) ?? []);
  const order = (one: Found) => (one.lane.kind === 'screen' ? 0 : 1);
  found.sort((a, b) => order(a) - order(b) || a.clip.start - b.clip.start);
  return found[0]?.clip.id ?? null;
}
