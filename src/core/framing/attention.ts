import { sourceEnd } from '../project/clip-time';
import type { Clip, Project } from '../project/model';
import { isLaneOn } from '../project/query';
import type { Sources } from '../project/sources';
import type { InFootage } from '../scale/rect';
import type { Activity } from '../telemetry/activity';
import type { Range } from '../time/ranges';
import { TICKS_PER_SECOND, ticksToSeconds, type Ticks } from '../time/ticks';
import { doingsOf } from './doings';

/** Something on the screen that viewers should see: when, where, and how much it matters. */
export interface Attention extends Range {
  readonly footageId: string;
  /** The pixels it is about. */
  readonly rect: InFootage;
  readonly kind: Activity['kind'];
  /** What it is worth to be seen large; a press is 1, and what only rests is 0. */
  readonly gain: number;
  /** What it costs where it is out of view, all of it. */
  readonly weight: number;
  /** Whether no plan may leave it out of view. */
  readonly must: boolean;
}

/** What longer work is worth for each second of it, and at most. */
const GAIN_A_SECOND = 0.3;
const MOST_GAIN = 4;

/** What one activity is worth by what it is, for seconds that it lasts. */
function worthOf(kind: Activity['kind'], seconds: number): Pick<Attention, 'gain' | 'weight'> {
  const lasting = (first: number) => Math.min(MOST_GAIN, first + GAIN_A_SECOND * seconds);
  switch (kind) {
    case 'press':
      return { gain: 1, weight: 8 };
    case 'drag':
      return { gain: lasting(1), weight: 8 };
    case 'typing':
      return { gain: lasting(0.8), weight: 5 };
    case 'scroll':
      return { gain: lasting(0.2), weight: 1 };
    case 'opening':
      return { gain: 0.6, weight: 2 };
    case 'dwell':
      // A pointer that rests or fidgets earns no move, whatever it does.
      return { gain: 0, weight: 0.3 };
  }
}

/** The instant of the timeline at which a clip shows an instant of its recording. */
const timeIn = (clip: Clip, ms: number): Ticks =>
  clip.start + Math.round(((ms / 1000) * TICKS_PER_SECOND - clip.source) / clip.speed);

/**
 * What viewers should see on the screen recordings of a project, as far as a pointer track or the
 * picture itself tells, in order of time; places in footage pixels, times in ticks of the timeline.
 */
export function attentionOf(
  project: Pick<Project, 'lanes' | 'corrections'>,
  sources: Sources,
): Attention[] {
  const found: Attention[] = [];
  const known = new Map<string, readonly Activity[]>();
  for (const lane of project.lanes) {
    if (lane.kind !== 'screen' || !isLaneOn(project, lane)) continue;
    for (const clip of lane.clips) {
      if (clip.speed === 0) continue;
      const activities =
        known.get(clip.footageId) ?? doingsOf(project, sources, clip.footageId) ?? [];
      known.set(clip.footageId, activities);
      const from = ticksToSeconds(clip.source) * 1000;
      const to = ticksToSeconds(sourceEnd(clip)) * 1000;
      for (const { kind, start, end, left, top, right, bottom, confidence } of activities) {
        if (start < from || start >= to) continue;
        const { gain, weight } = worthOf(kind, (end - start) / 1000);
        found.push({
          footageId: clip.footageId,
          start: timeIn(clip, start),
          end: timeIn(clip, Math.min(end, to)),
          rect: { x: left, y: top, width: right - left, height: bottom - top },
          kind,
          must: confidence === 1 && (kind === 'press' || kind === 'drag'),
          gain: gain * confidence,
          weight: weight * confidence,
        });
      }
    }
  }
  return found.sort((a, b) => a.start - b.start || a.end - b.end);
}
