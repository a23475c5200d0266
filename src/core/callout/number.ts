import type { Callout, Project } from '../project/model';
import { stepAt } from '../project/query';

type Count = Callout & { readonly kind: 'count' };

/**
 * The number of a count, from 1: how many of those that count over the same have begun when it
 * does, itself included. Of two that begin together the one that was made first comes first.
 */
export function numberOf(project: Project, count: Count): number {
  const from = count.over === 'step' ? (stepAt(project, count.start)?.start ?? 0) : 0;
  let number = 1;
  let before = true;
  for (const other of project.callouts) {
    if (other.id === count.id) before = false;
    else if (
      other.kind === 'count' &&
      other.over === count.over &&
      other.start >= from &&
      (other.start < count.start || (other.start === count.start && before))
    )
      number++;
  }
  return number;
}
