import { sourceMs, timelineTime } from '@/core/project/clip-time';
import { screenClipAt } from '@/core/project/query';
import type { Clip } from '@/core/project/model';
import { trackOf } from '@/core/project/track-of';
import { unsureStretches } from '@/core/telemetry/correct';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import { secondsToTicks, type Ticks } from '@/core/time/ticks';
import type { EditorState } from './session/state';
import { rangeOf } from './store';

/** Without a range, what is mended reaches so far from the playhead on, in ms. */
const USUAL_MS = 2000;

/** The pointer of a recording as it is at the playhead, to be mended. */
export interface PathHere {
  readonly clip: Clip;
  readonly track: PointerTrack | null;
  /** Time in the recording, in ms. */
  readonly ms: number;
  /** What is mended as a whole: the range, the unsure stretch here, or a while from here on. */
  readonly from: number;
  readonly to: number;
}

const msOf = (clip: Clip, time: Ticks): number => Math.max(0, sourceMs(clip, time));

/** The instant of the timeline at which a clip shows a time of its recording in ms. */
export const timeOfMs = (clip: Clip, ms: number): Ticks =>
  timelineTime(clip, secondsToTicks(ms / 1000));

/** The pointer of a recording at an instant; null where the recording is not there. */
export function pathHere(
  state: Pick<EditorState, 'project' | 'sources' | 'range'>,
  footageId: string,
  time: Ticks,
): PathHere | null {
  const { project, sources } = state;
  const clip = screenClipAt(project, footageId, time);
  if (!clip || clip.speed === 0) return null;
  const track = trackOf(project, sources, footageId);
  const ms = msOf(clip, time);
  const range = rangeOf(state);
  const unsure = track && unsureStretches(track).find((u) => u.from <= ms && ms < u.to);
  const stretch = range
    ? { from: msOf(clip, range.start), to: msOf(clip, range.end) }
    : (unsure ?? { from: ms, to: ms + USUAL_MS });
  return { clip, track, ms, from: stretch.from, to: stretch.to };
}
