import { createClip } from '../project/create';
import type { Lane, LaneKind, Project } from '../project/model';
import { laneEnd } from '../project/query';
import type { FootageFacts } from '../project/sources';
import { frameDuration, frameStart, type FrameRate, type Ticks } from '../time/ticks';
import { EditError } from './error';
import { sortLane } from './lookup';

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

/**
 * Puts a recording on the lanes of its role: picture and sound as linked clips.
 * The sound of a screen recording goes to its own lane, which is muted when
 * there is a voice already (it then serves for lining up only).
 *
 * @param at where to begin; null puts it at the end of its lane
 * @returns ids of the new clips
 * @throws EditError when something stands there, or the footage is too short for a frame
 */
export function placeFootage(project: Project, footage: FootageFacts, at: Ticks | null, newId: () => string): string[] {
  const rate = project.canvas.frameRate;
  const length =
    footage.kind === 'image' ? frameStart(Math.round((STILL_SECONDS * rate.num) / rate.den), rate) : wholeFrames(footage.duration, rate);
  const duration = footage.kind === 'image' ? length : Math.min(length, footage.duration);
  if (duration <= 0) throw new EditError(`${footage.name} has no length that could be placed.`);
  const pictureKind = footage.hasVideo ? (PICTURE_LANE[footage.role] ?? 'screen') : null;
  const soundKind = footage.hasAudio ? SOUND_LANE[footage.role] : null;
  const lanes = [pictureKind, soundKind].flatMap((kind) => (kind ? [laneFor(project, kind)] : []));
  if (!lanes.length) throw new EditError(`${footage.name} has neither picture nor sound that could be placed.`);
  const start = at ?? Math.max(...lanes.map(laneEnd));
  for (const lane of lanes)
    if (lane.clips.some((c) => c.start < start + duration && c.start + c.duration > start))
      throw new EditError(`There is no room here on the lane ${lane.name}. Put the playhead in a gap or at the end.`);
  const hadVoice = project.lanes.some((l) => l.kind === 'voice' && l.clips.length);
  const computer = project.lanes.find((l) => l.kind === 'computer');
  if (soundKind === 'computer' && hadVoice && computer && !computer.clips.length) computer.off = true;
  if (soundKind === 'voice' && !hadVoice && computer?.clips.length) computer.off = true;
  const link = lanes.length > 1 ? newId() : null;
  return lanes.map((lane) => {
    const clip = createClip({ id: newId(), footageId: footage.id, start, duration, source: 0, link });
    lane.clips.push(clip);
    sortLane(lane);
    return clip.id;
  });
}
