import { anchorFootage } from '../callout/anchor';
import { createClip } from '../project/create';
import { USUAL_LAYOUT } from '../layout/built-in';
import type { Lane, LaneKind, Project } from '../project/model';
import { placedSteps, projectDuration, stepRange } from '../project/query';
import { liveData, type LiveData } from '../take/live';
import type { TakeSetup } from '../take/setup';
import { TRACK_NAMES, type TakeEvent, type TrackName } from '../take/take';
import { overlaps, type Range } from '../time/ranges';
import { frameDuration, secondsToTicks, ticksToSeconds, type Ticks } from '../time/ticks';
import { EditError } from './error';
import { sortLane } from './lookup';
import { partsOutside } from './pieces';
import { rippleDelete, rippleInsert } from './ripple';
import { changeLook, changePresenter } from './settings';
import { addSpan, setLayout } from './spans';

/** One recording of a take, on the take's clock. */
export interface TakeTrack {
  readonly name: TrackName;
  readonly footageId: string;
  /**
   * Take time of its first picture or sample; may lie a little before 0, when a device turns out to
   * be quicker than it first seemed.
   */
  readonly offset: Ticks;
  readonly duration: Ticks;
  /** dB, kept as data where the device could not be turned. */
  readonly gain: number;
}

export interface PlacedTake {
  readonly start: Ticks;
  readonly end: Ticks;
  /** Take time that stands at `start`. */
  readonly origin: Ticks;
  readonly clipIds: readonly string[];
}

const LANE_OF: Record<TrackName, LaneKind> = {
  screen: 'screen',
  camera: 'presenter',
  voice: 'voice',
  computer: 'computer',
};
/**
 * Tracks that begin or end within so much of each other are cut to what they share; one that is
 * further off keeps its own time.
 */
const RAGGED = secondsToTicks(0.5);

/**
 * The stretch of take time that is placed: from when the tracks run to when they end, but for
 * stragglers.
 */
export function takeSpan(tracks: readonly Pick<TakeTrack, 'offset' | 'duration'>[]): {
  origin: Ticks;
  end: Ticks;
} {
  const starts = tracks.map((t) => t.offset);
  const earliest = Math.min(...starts);
  const origin = Math.max(...starts.filter((s) => s - earliest <= RAGGED));
  const ends = tracks.map((t) => t.offset + t.duration);
  const latest = Math.max(...ends);
  return { origin, end: Math.min(...ends.filter((e) => latest - e <= RAGGED)) };
}

/**
 * Puts the recordings of a take at their step, linked, on one clock. A planned step gets its place
 * behind the step before it, and what follows makes room; in a recorded one the take replaces what
 * stood on its lanes, and the step becomes as long as what is in it. Null as step puts it at the
 * end.
 *
 * @throws EditError when a lane is locked or nothing is long enough for a frame
 */
export function placeTake(
  project: Project,
  stepId: string | null,
  tracks: readonly TakeTrack[],
  newId: () => string,
): PlacedTake {
  const frame = frameDuration(project.canvas.frameRate);
  const { origin, end } = takeSpan(tracks);
  const length = Math.floor((end - origin) / frame) * frame;
  const kept = tracks.filter(
    (t) => Math.min(end, t.offset + t.duration) - Math.max(origin, t.offset) >= 2 * frame,
  );
  if (length < frame || !kept.length)
    throw new EditError('The take is shorter than one frame, so there is nothing to place.');
  const lanes = new Map(kept.map((track) => [track, laneFor(project, LANE_OF[track.name])]));
  const start = makeRoom(project, stepId, length, new Set(lanes.values()), newId);
  const link = kept.length > 1 ? newId() : null;
  const clips = TRACK_NAMES.flatMap((name) => kept.filter((t) => t.name === name)).map((track) => {
    const late = Math.max(0, Math.ceil((track.offset - origin) / frame) * frame);
    const own =
      Math.min(length, Math.floor((track.offset + track.duration - origin) / frame) * frame) - late;
    const clip = createClip({
      id: newId(),
      footageId: track.footageId,
      start: start + late,
      duration: own,
      source: origin + late - track.offset,
      link,
      gain: track.gain,
    });
    const lane = lanes.get(track)!;
    lane.clips.push(clip);
    sortLane(lane);
    return clip.id;
  });
  if (stepId) closeTail(project, stepId, newId);
  return { start, end: start + length, origin, clipIds: clips };
}

function laneFor(project: Project, kind: LaneKind): Lane {
  const lane = project.lanes.find((l) => l.kind === kind && !l.locked);
  if (!lane)
    throw new EditError(
      'The lane for this take is locked. Unlock it in Edit, then use the take from the drawer of takes.',
    );
  return lane;
}

/** Frees the time of a step on some lanes, and makes it long enough. Answers where it begins. */
function makeRoom(
  project: Project,
  stepId: string | null,
  length: Ticks,
  lanes: ReadonlySet<Lane>,
  newId: () => string,
): Ticks {
  if (!stepId) return projectDuration(project);
  const range = stepRange(project, stepId);
  if (!range) {
    const start = placeOf(project, stepId);
    rippleInsert(project, start, length, newId);
    const step = project.steps.find((s) => s.id === stepId);
    if (!step)
      throw new EditError('That step is no longer there. The take is kept in the drawer of takes.');
    step.start = start;
    return start;
  }
  const replaced = new Set<string>();
  for (const lane of lanes) {
    lane.clips = lane.clips.flatMap((clip) => {
      if (overlaps({ start: clip.start, end: clip.start + clip.duration }, range))
        replaced.add(clip.footageId);
      return partsOutside(clip, range, newId, () => null);
    });
  }
  // What was drawn over a recording that is gone, or framed in it, goes with it.
  const goes = (span: Range, footageId: string | null) =>
    footageId !== null && replaced.has(footageId) && overlaps(span, range);
  project.callouts = project.callouts.filter((c) => !goes(c, anchorFootage(c.anchor)));
  project.framings = project.framings.filter((f) => !goes(f, f.footageId));
  const last = placedSteps(project).at(-1)?.id === stepId;
  if (!last && length > range.end - range.start)
    rippleInsert(project, range.end, length - (range.end - range.start), newId);
  return range.start;
}

/**
 * Where a step that is only planned will begin: before the next recorded one of the outline, else
 * at the end.
 */
function placeOf(project: Project, stepId: string): Ticks {
  const index = project.steps.findIndex((s) => s.id === stepId);
  const next = project.steps.slice(index + 1).find((s) => s.start !== null);
  let start = next?.start ?? projectDuration(project);
  // A recorded step with nothing in it may begin at the end too; two steps never share an instant.
  const frame = frameDuration(project.canvas.frameRate);
  while (project.steps.some((s) => s.start === start && s !== next)) start += frame;
  return start;
}

/** Takes away the end of a step that nothing but music fills. */
function closeTail(project: Project, stepId: string, newId: () => string): void {
  const range = stepRange(project, stepId);
  if (!range || placedSteps(project).at(-1)?.id === stepId) return;
  let filled = range.start;
  for (const lane of project.lanes)
    if (lane.kind !== 'music')
      for (const clip of lane.clips)
        if (clip.start < range.end)
          filled = Math.max(filled, Math.min(range.end, clip.start + clip.duration));
  if (filled > range.start && filled < range.end)
    rippleDelete(project, { start: filled, end: range.end }, newId);
}

/**
 * Adds what was done live during a take to the project. A take in which a layout was chosen decides
 * the layout of all its time; one in which none was leaves it as it is.
 */
export function addLiveData(
  project: Project,
  data: LiveData,
  range: Range,
  newId: () => string,
): void {
  for (const callout of data.callouts) addSpan(project, 'callouts', callout);
  for (const framing of data.framings) addSpan(project, 'framings', framing);
  if (data.layouts.length) setLayout(project, range, USUAL_LAYOUT, newId);
  for (const layout of data.layouts) addSpan(project, 'layouts', layout);
  for (const marker of data.markers)
    if (!project.markers.some((m) => m.time === marker.time)) project.markers.push(marker);
  project.markers.sort((a, b) => a.time - b.time);
}

/** A take as it was kept: its recordings, how it was set up, and what was done live. */
export interface KeptTake {
  readonly stepId: string | null;
  readonly setup: Pick<TakeSetup, 'area' | 'gain' | 'camera' | 'hold'>;
  readonly tracks: readonly {
    readonly name: TrackName;
    readonly footageId: string;
    readonly offset: Ticks;
    readonly duration: Ticks;
    readonly width: number;
    readonly height: number;
  }[];
  readonly events: readonly TakeEvent[];
}

/** Shows the recordings of a take as they were set up to be shown. */
function applySetup(project: Project, { setup, tracks }: KeptTake): void {
  const screen = tracks.find((t) => t.name === 'screen');
  const camera = tracks.find((t) => t.name === 'camera');
  if (screen && setup.area) changeLook(project, screen.footageId, { area: { ...setup.area } });
  if (!camera) return;
  const { area, brightness, contrast, mirror } = setup.camera;
  if (area || brightness !== 0 || contrast !== 1)
    changeLook(project, camera.footageId, { area: area && { ...area }, brightness, contrast });
  if (mirror !== project.presenter.mirror) changePresenter(project, { mirror });
}

/**
 * Puts a take that was kept at its step, with what was done live; a step that is no longer there is
 * as none.
 *
 * @returns ids of the new clips
 * @throws EditError as `placeTake`
 */
export function placeKeptTake(
  project: Project,
  take: KeptTake,
  newId: () => string,
): readonly string[] {
  const { setup, events, tracks } = take;
  const stepId = project.steps.some((s) => s.id === take.stepId) ? take.stepId : null;
  const placed = placeTake(
    project,
    stepId,
    tracks.map(({ name, footageId, offset, duration }) => {
      return { name, footageId, offset, duration, gain: name === 'voice' ? setup.gain : 0 };
    }),
    newId,
  );
  applySetup(project, take);
  const screen = tracks.find((t) => t.name === 'screen');
  const whole = { x: 0, y: 0, width: screen?.width ?? 16, height: screen?.height ?? 9 };
  const live = liveData(
    events,
    {
      footageId: screen?.footageId ?? null,
      area: setup.area ?? whole,
      frame: project.canvas,
      rate: project.canvas.frameRate,
      start: placed.start,
      from: ticksToSeconds(placed.origin) * 1000,
      end: placed.end,
      hold: setup.hold,
    },
    newId,
  );
  addLiveData(project, live, { start: placed.start, end: placed.end }, newId);
  return placed.clipIds;
}
