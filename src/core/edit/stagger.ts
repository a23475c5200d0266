import { startingLater } from '../callout/keyframes';
import type { Project } from '../project/model';
import type { Ticks } from '../time/ticks';
import { EditError } from './error';

/**
 * Lets callouts come one after the other: the first stays, each other one begins so much later than
 * the one before. They end when they did, unless less than a frame would be left of them.
 *
 * @param by ticks, above 0
 * @param least shortest length that may remain, in ticks
 * @throws EditError for fewer than two
 */
export function stagger(project: Project, ids: readonly string[], by: Ticks, least: Ticks): void {
  const chosen = project.callouts.filter(({ id }) => ids.includes(id));
  if (chosen.length < 2) throw new EditError('Select two callouts or more.');
  const first = chosen[0]!.start;
  chosen.forEach((callout, i) => {
    const before = callout.start;
    callout.start = first + i * by;
    callout.end = Math.max(callout.end, callout.start + least);
    callout.keyframes = startingLater(callout.keyframes, callout.start - before);
  });
  project.callouts.sort((a, b) => a.start - b.start);
}
