import { clipEnd, sourceEnd, timelineTime } from '../project/clip-time';
import type { Clip, Project } from '../project/model';
import type { Sources } from '../project/sources';
import { trackOf } from '../project/track-of';
import { secondsToTicks, ticksToSeconds, type Ticks } from '../time/ticks';

/** A press on the timeline, and the clip whose recording shows it. */
export interface TimelinePress {
  readonly time: Ticks;
  readonly clip: Clip;
  /** Below 1 where it was inferred from the picture. */
  readonly confidence: number;
}

/**
 * The presses of the pointer in a stretch of the timeline, as the screen clips there show them: by
 * lane, then in order. What a frozen clip shows is no press.
 */
export function pressesIn(
  project: Project,
  sources: Sources,
  from: Ticks,
  to: Ticks,
): TimelinePress[] {
  const presses: TimelinePress[] = [];
  for (const lane of project.lanes)
    if (lane.kind === 'screen')
      for (const clip of lane.clips) {
        const track = trackOf(project, sources, clip.footageId);
        if (!track || clip.speed === 0 || clip.start > to || clipEnd(clip) < from) continue;
        const first = ticksToSeconds(clip.source) * 1000;
        const last = ticksToSeconds(sourceEnd(clip)) * 1000;
        for (const { t, type, confidence = 1 } of track.events) {
          if (type !== 'down' || t < first || t >= last) continue;
          const time = timelineTime(clip, secondsToTicks(t / 1000));
          if (time >= from && time <= to) presses.push({ time, clip, confidence });
        }
      }
  return presses;
}
