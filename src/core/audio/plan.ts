import type { Project } from '../project/model';
import type { Sources } from '../project/sources';
import { soundSegments, type SoundSegment } from './mix';
import type { ProcessorSpec } from './processor';
import { TICK_SOUND, tickSegments } from './tick';

/** What is heard of one lane, and what it goes through. */
export interface SoundLane {
  readonly segments: readonly SoundSegment[];
  readonly chain: readonly ProcessorSpec[];
}

/** Everything that is heard, as data: preview and export pull the same plan. */
export interface SoundPlan {
  readonly lanes: readonly SoundLane[];
  /** What the sum of the lanes goes through. */
  readonly master: readonly ProcessorSpec[];
}

/** Describes the sound of a project. */
export function planSound(project: Project, sources: Sources): SoundPlan {
  const byLane = new Map<string, SoundSegment[]>();
  for (const segment of soundSegments(project, sources))
    byLane.set(segment.laneId, [...(byLane.get(segment.laneId) ?? []), segment]);
  const ticks = tickSegments(project, sources);
  if (ticks.length) byLane.set(TICK_SOUND, ticks);
  return {
    lanes: [...byLane.values()].map((segments) => ({ segments, chain: [] })),
    master: [{ kind: 'tame' }],
  };
}

/** Whether anything is heard at all. */
export const isSilent = ({ lanes }: SoundPlan): boolean =>
  lanes.every(({ segments }) => segments.length === 0);
