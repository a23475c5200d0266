import type { Project, Step } from '../project/model';
import { stepRange } from '../project/query';
import { overlaps } from '../time/ranges';
import { ticksToSeconds } from '../time/ticks';
import { countWords, readingSeconds } from './count';

export const STEP_PARTS = ['voice', 'screen', 'presenter', 'framings'] as const;
export type StepPart = (typeof STEP_PARTS)[number];

/** What a step has so far, and how long it is. */
export interface StepStatus {
  readonly has: Readonly<Record<StepPart, boolean>>;
  readonly words: number;
  /** Seconds of narration at the project's reading speed. */
  readonly planned: number;
  /** Seconds on the timeline; null while nothing is recorded. */
  readonly recorded: number | null;
}

/** What of a step is there: the lanes that have clips in its time, and framings. */
export function stepStatus(project: Project, step: Step): StepStatus {
  const range = stepRange(project, step.id);
  const lane = (kind: 'voice' | 'screen' | 'presenter') =>
    !!range &&
    project.lanes.some(
      (l) =>
        l.kind === kind &&
        l.clips.some((c) => overlaps({ start: c.start, end: c.start + c.duration }, range)),
    );
  return {
    has: {
      voice: lane('voice'),
      screen: lane('screen'),
      presenter: lane('presenter'),
      framings: !!range && project.framings.some((f) => overlaps(f, range)),
    },
    words: countWords(step.narration),
    planned: readingSeconds(step.narration, project.script.wordsPerMinute),
    recorded: range ? ticksToSeconds(range.end - range.start) : null,
  };
}
