import { anchorFootage } from '../callout/anchor';
import type { Framing, Project } from '../project/model';
import type { Range } from '../time/ranges';
import type { Ticks } from '../time/ticks';
import { addSpan } from './spans';

/** Where a clip of a recording stood before it was moved. */
export interface MovedClip extends Range {
  readonly footageId: string;
}

/**
 * Lets what stands on recordings go along with their clips: framings and callouts that lay wholly
 * within one that was moved. A framing takes the place of others that it comes to lie over.
 *
 * @param by so many ticks the clips were moved
 * @param stay ids of what is moved by itself
 */
export function followClips(
  project: Project,
  moved: readonly MovedClip[],
  by: Ticks,
  stay: ReadonlySet<string>,
): void {
  if (!by) return;
  const goes = (span: Range & { readonly id: string }, footageId: string | null) =>
    !stay.has(span.id) &&
    moved.some(
      (clip) => clip.footageId === footageId && span.start >= clip.start && span.end <= clip.end,
    );
  const framings = project.framings.filter((f) => goes(f, f.footageId));
  const going = new Set<Framing>(framings);
  project.framings = project.framings.filter((f) => !going.has(f));
  for (const framing of framings)
    addSpan(project, 'framings', {
      ...framing,
      start: framing.start + by,
      end: framing.end + by,
    });
  for (const callout of project.callouts)
    if (goes(callout, anchorFootage(callout.anchor))) {
      callout.start += by;
      callout.end += by;
    }
  if (moved.length) project.callouts.sort((a, b) => a.start - b.start);
}
