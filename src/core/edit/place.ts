import { createClip } from '../project/create';
import type { Lane, LaneKind, Project } from '../project/model';
import { isPictureLane, laneEnd } from '../project/query';
import type { FootageFacts } from '../project/sources';
import { frameDuration, frameStart, type FrameRate, type Ticks } from '../time/ticks';
import { EditError } from './error';
import { freeLane, isFree } from './lanes';
import { sortLane } from './lookup';
import { clearRange } from './range';
import { rippleInsert } from './ripple';

const PICTURE_LANE: Record<FootageFacts['role'], LaneKind | null> = {
  screen: 'screen',
  still: 'screen',
  presenter: 'presenter',
  voice: null,
  computer: null,
  music: null,
};
const SOUND_LANE: Record<FootageFacts['role'], LaneKind> = {
  screen: 'computer',
  still: 'computer',
  presenter: 'voice',
  voice: 'voice',
  computer: 'computer',
  music: 'music',
};

const STILL_SECONDS = 5;

/** Whole frames of the project that a recording fills. */
function wholeFrames(duration: Ticks, rate: FrameRate): Ticks {
  const frame = frameDuration(rate);
  return Math.max(1, Math.floor(duration / frame)) * frame;
}

/** First free unlocked lane of a kind for a stretch of time. */
function laneFor(project: Project, kind: LaneKind): Lane {
  const lane = project.lanes.find((l) => l.kind === kind && !l.locked);
  if (!lane) throw new EditError(`The lane for this footage is locked. Unlock it first.`);
  return lane;
}

export interface PlaceOptions {
  /**
   * What to do where something stands already: refuse, make room on all unlocked lanes, or lay it
   * over.
   */
  readonly mode: 'free' | 'insert' | 'overwrite';
  /**
   * Part of the footage, in its own time; all of it by default. A still lasts as long as its part.
   */
  readonly part: { readonly from: Ticks; readonly to: Ticks } | null;
  /**
   * A lane for its picture, or for its sound if it has no picture, other than the first of its
   * role.
   */
  readonly laneId: string | null;
}

/**
 * The part of a recording that would be placed, in whole frames; a still lasts five seconds unless
 * it is told otherwise.
 */
function partLength(
  footage: FootageFacts,
  part: PlaceOptions['part'],
  rate: FrameRate,
): { from: Ticks; length: Ticks } {
  if (footage.kind === 'image')
    return {
      from: 0,
      length: wholeFrames(
        part
          ? part.to - part.from
          : frameStart(Math.round((STILL_SECONDS * rate.num) / rate.den), rate),
        rate,
      ),
    };
  const from = Math.max(0, Math.min(part?.from ?? 0, footage.duration));
  const to = Math.min(part?.to ?? footage.duration, footage.duration);
  return { from, length: Math.min(wholeFrames(to - from, rate), to - from) };
}

/** The lane that was asked for if it can carry this, else the first unlocked one of the kind. */
function targetLane(
  project: Project,
  kind: LaneKind,
  footage: FootageFacts,
  picture: boolean,
  laneId: string | null,
): Lane {
  const chosen = laneId === null ? undefined : project.lanes.find((l) => l.id === laneId);
  if (!chosen || isPictureLane(chosen) !== picture) return laneFor(project, kind);
  if (chosen.locked) throw new EditError(`The lane ${chosen.name} is locked. Unlock it first.`);
  if (picture && !footage.hasVideo)
    throw new EditError(
      `${footage.name} has no picture, so it can’t stand on the lane ${chosen.name}.`,
    );
  return chosen;
}

/** The kinds of lanes that a recording needs: for its picture and for its sound. */
function kindsOf(footage: FootageFacts): { picture: LaneKind | null; sound: LaneKind | null } {
  const picture = footage.hasVideo ? (PICTURE_LANE[footage.role] ?? 'screen') : null;
  const sound = footage.hasAudio ? SOUND_LANE[footage.role] : null;
  if (!picture && !sound)
    throw new EditError(`${footage.name} has neither picture nor sound that could be placed.`);
  return { picture, sound };
}

/** The clips of a recording on lanes that have room for them. */
function placeOn(
  project: Project,
  footage: FootageFacts,
  lanes: readonly Lane[],
  { start, from, length }: { start: Ticks; from: Ticks; length: Ticks },
  newId: () => string,
): string[] {
  const sound = lanes.find((lane) => !isPictureLane(lane))?.kind;
  const hadVoice = project.lanes.some((l) => l.kind === 'voice' && l.clips.length);
  const computer = project.lanes.find((l) => l.kind === 'computer');
  if (sound === 'computer' && hadVoice && computer && !computer.clips.length) computer.off = true;
  if (sound === 'voice' && !hadVoice && computer?.clips.length) computer.off = true;
  const link = lanes.length > 1 ? newId() : null;
  return lanes.map((lane) => {
    const clip = createClip({
      ...{ id: newId(), footageId: footage.id },
      ...{ start, duration: length, source: from, link },
    });
    lane.clips.push(clip);
    sortLane(lane);
    return clip.id;
  });
}

/**
 * Puts a recording on free lanes of its role, made where there are none: what lies there stays.
 *
 * @param at where its recording begins; its clips begin on the next frame with what is shown then
 * @returns ids of the new clips
 * @throws EditError when the footage is too short for a frame
 */
export function placeBeside(
  project: Project,
  footage: FootageFacts,
  at: Ticks,
  newId: () => string,
): string[] {
  const { frameRate } = project.canvas;
  const frame = frameDuration(frameRate);
  const start = Math.ceil(at / frame) * frame;
  const rest = footage.kind === 'image' ? null : { from: start - at, to: footage.duration };
  const { from, length } = partLength(footage, rest, frameRate);
  if (length <= 0) throw new EditError(`${footage.name} has no length that could be placed.`);
  const { picture, sound } = kindsOf(footage);
  const lanes = [picture, sound].flatMap((kind) => {
    if (!kind) return [];
    return [freeLane(project, kind, { start, end: start + length }, newId)];
  });
  return placeOn(project, footage, lanes, { start, from, length }, newId);
}

/**
 * Puts a recording on the lanes of its role: picture and sound as linked clips.
 * The sound of a screen recording goes to its own lane, which is muted when
 * there is a voice already (it then serves for lining up only).
 *
 * @param at where to begin; null puts it at the end of its lane
 * @returns ids of the new clips
 * @throws EditError when something stands there, or the footage is too short for a frame
 */
export function placeFootage(
  project: Project,
  footage: FootageFacts,
  at: Ticks | null,
  newId: () => string,
  { mode = 'free', part = null, laneId = null }: Partial<PlaceOptions> = {},
): string[] {
  const { from, length: duration } = partLength(footage, part, project.canvas.frameRate);
  if (duration <= 0) throw new EditError(`${footage.name} has no length that could be placed.`);
  const { picture, sound } = kindsOf(footage);
  const lanes = [
    ...(picture ? [targetLane(project, picture, footage, true, laneId)] : []),
    ...(sound ? [targetLane(project, sound, footage, false, picture ? null : laneId)] : []),
  ];
  const start = at ?? Math.max(...lanes.map(laneEnd));
  if (mode === 'insert') rippleInsert(project, start, duration, newId);
  if (mode !== 'free') clearRange(lanes, { start, end: start + duration }, newId);
  for (const lane of lanes)
    if (!isFree(lane, { start, end: start + duration }))
      throw new EditError(
        `There is no room here on the lane ${lane.name}. Put the playhead in a gap or at the end, or insert or overwrite.`,
      );
  return placeOn(project, footage, lanes, { start, from, length: duration }, newId);
}
