import { assertNever } from '../assert-never';
import type { Project } from '../project/model';
import type { PathCorrection } from '../project/parts/correction';
import { EditError } from './error';

/** Mends something of the path of a recording's pointer. */
export function correctPointer(
  project: Project,
  footageId: string,
  correction: PathCorrection,
): void {
  const times = correction.kind === 'path' ? correction.points.map(([t]) => t) : [];
  if (times.some((t, i) => i > 0 && t <= times[i - 1]!))
    throw new EditError('The points of a path have to follow one another in time.');
  if (correction.kind === 'hidden' && correction.to <= correction.from)
    throw new EditError('A stretch needs a length above zero.');
  const known = project.corrections.find((c) => c.footageId === footageId);
  const last = known?.made.at(-1);
  const isSame =
    last?.kind === 'shift' &&
    correction.kind === 'shift' &&
    last.at === correction.at &&
    last.reach === correction.reach;
  // Moved once more, as by arrow keys, it is one move.
  if (isSame) {
    last.dx += correction.dx;
    last.dy += correction.dy;
  } else if (known) known.made.push(correction);
  else project.corrections.push({ footageId, made: [correction] });
}

/** The stretch of a recording that a correction is about, in its milliseconds. */
function stretchOf(correction: PathCorrection): readonly [number, number] {
  switch (correction.kind) {
    case 'path':
      return [correction.points[0]![0], correction.points.at(-1)![0]];
    case 'shift':
      return [correction.at - correction.reach, correction.at + correction.reach];
    case 'hidden':
      return [correction.from, correction.to];
    case 'press':
      return [correction.at, correction.at];
    default:
      return assertNever(correction);
  }
}

/**
 * Takes back what was mended in a stretch of a recording, in milliseconds: what was found counts.
 */
export function dropCorrections(
  project: Project,
  footageId: string,
  from: number,
  to: number,
): void {
  const known = project.corrections.find((c) => c.footageId === footageId);
  const stay = known?.made.filter((one) => {
    const [first, last] = stretchOf(one);
    return last < from || first > to;
  });
  if (!known || !stay || stay.length === known.made.length)
    throw new EditError('Nothing was mended here.');
  if (stay.length) known.made = stay;
  else project.corrections.splice(project.corrections.indexOf(known), 1);
}
