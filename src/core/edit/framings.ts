import { roomForTurn } from '../framing/turn';
import type { Project } from '../project/model';
import { areaOf } from '../project/query';
import { footageOf, type Sources } from '../project/sources';
import { contains } from '../time/ranges';
import type { Ticks } from '../time/ticks';
import { EditError } from './error';
import { fitRamps } from './spans';

/**
 * Lets the view go back to the whole screen from an instant on: the framing there ends as soon as
 * it is back, and one that had hardly begun goes.
 *
 * @param ramp how long the way back takes, in ticks, where the framing has none of its own
 * @throws EditError where the whole screen is seen already
 */
export function showWhole(project: Project, time: Ticks, ramp: Ticks): void {
  const framing = project.framings.find((f) => contains(f, time));
  if (!framing) throw new EditError('The whole screen is shown here already.');
  const rested = time - framing.start - framing.rampIn;
  if (rested <= 0) {
    project.framings.splice(project.framings.indexOf(framing), 1);
    return;
  }
  const back = framing.rampOut || ramp;
  framing.end = Math.min(framing.end, time + back);
  framing.rampOut = framing.end - time;
  framing.pinned = true;
  fitRamps(framing);
}

/**
 * Brings the views of a turned framing so far closer and inwards that nothing beyond their recording
 * is seen; one whose recording is not there, or that is not turned, stays as it is.
 */
export function makeRoomToTurn(project: Project, sources: Sources, id: string): void {
  const framing = project.framings.find((f) => f.id === id);
  const footage = framing && footageOf(sources, framing.footageId);
  if (!footage || !framing.turn) return;
  const { turn, endRect } = framing;
  const area = areaOf(project, footage);
  framing.rect = { ...roomForTurn(framing.rect, area, turn) };
  framing.endRect = endRect && { ...roomForTurn(endRect, area, turn) };
}
