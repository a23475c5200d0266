import { placedSteps } from '../project/query';
import type { Project } from '../project/model';
import type { Range } from '../time/ranges';
import { snapToFrame, type FrameRate, type Ticks } from '../time/ticks';

/** A named stretch of an exported video, in ticks after its start. */
export interface Chapter {
  readonly start: Ticks;
  readonly end: Ticks;
  readonly title: string;
}

/**
 * A chapter for each step that has part in a range of the timeline, on frames of a rate; without
 * gaps, the first from the very start. None when fewer than two steps have part in it: a single
 * chapter says nothing.
 */
export function chaptersOf(project: Project, range: Range, rate: FrameRate): Chapter[] {
  const placed = placedSteps(project);
  const seen = placed.filter(
    (step, i) => step.start < range.end && (placed[i + 1]?.start ?? Infinity) > range.start,
  );
  if (seen.length < 2) return [];
  const starts = seen.map((step, i) =>
    i ? snapToFrame(Math.max(step.start, range.start) - range.start, rate) : 0,
  );
  return seen.flatMap((step, i) => {
    const chapter = {
      start: starts[i]!,
      end: starts[i + 1] ?? range.end - range.start,
      title: step.title || `Step ${i + 1}`,
    };
    return chapter.end > chapter.start ? [chapter] : [];
  });
}
