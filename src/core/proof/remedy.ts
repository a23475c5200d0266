import type { Project } from '../project/model';
import type { Ticks } from '../time/ticks';
import type { Leak } from './leaks';

/**
 * What to do about something that leaks, in a sentence.
 *
 * @param project as it was exported
 * @param origin the instant of the timeline at which the export begins, in ticks
 * @param frame length of a frame of the export, in ticks
 */
export function remedyFor(project: Project, leak: Leak, origin: Ticks, frame: Ticks): string {
  const cover = project.callouts.find(({ id }) => id === leak.coverId);
  if (!cover) return 'Its cover is not there any more. Add one.';
  if (leak.covered)
    return 'The cover is too weak: what is under it can still be told. Take solid, or more strength.';
  const [from, to] = [leak.from, leak.to + 1].map((n) => origin + n * frame) as [Ticks, Ticks];
  if (to <= cover.start || from >= cover.end)
    return 'What it hides is seen outside of its time. Have it last until then, or let it go along.';
  return cover.anchor.to === 'track'
    ? 'The cover is elsewhere. Go to where it lies right near this time, and let it go along again.'
    : 'What it hides moves away from under it. Let the cover go along with it.';
}
