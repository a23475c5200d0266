import { link, rm } from 'node:fs/promises';
import type { TakePlacement } from '@/contract/takes';
import type { Role } from '@/core/project/sources';
import { pointerTrackOf } from '@/core/take/pointer';
import { readTakeEvents } from '@/core/take/read-events';
import type { TrackSetup } from '@/core/take/setup';
import type { TakeEvent, TrackName } from '@/core/take/take';
import { bridgeJoins } from '@/core/telemetry/bridge';
import { secondsToTicks } from '@/core/time/ticks';
import type { ServerContext } from '../context';
import { footageCells, mediaFactsOf } from '../db/rows/footage';
import { madeCell, type Take } from '../db/rows/takes';
import { addFootage } from '../footage/add';
import { attachTrack } from '../footage/attach-track';
import { findFootage } from '../footage/view';
import { newId } from '../ids';
import { problem } from '../problem';
import { clocksOf, finishedPath, isFinished } from './conform';
import { factsOfTrack } from './facts';
import { readEvents } from './files';
import { inTurn } from './in-turn';
import { findTake, mustBeFinished } from './takes';

const ROLE_OF: Record<TrackName, Role> = {
  screen: 'screen',
  camera: 'presenter',
  voice: 'voice',
  computer: 'computer',
};
const NAME_OF: Record<TrackName, string> = {
  screen: 'screen',
  camera: 'camera',
  voice: 'voice',
  computer: 'computer sound',
};

/**
 * Makes footage of a take's tracks, each with its facts at once, so that the take can be placed
 * while previews are prepared. Asked for again, also after a break in the middle or several times
 * at once, it goes on from what is there.
 */
export const keepTake = (context: ServerContext, id: string): Promise<TakePlacement> =>
  inTurn(id, () => keepInTurn(context, id));

async function keepInTurn(context: ServerContext, id: string): Promise<TakePlacement> {
  const { takes } = context.db;
  const take = await findTake(context, id);
  mustBeFinished(take);
  const footage = { ...take.footage };
  const events = readTakeEvents(await readEvents(id));
  for (const track of take.setup.tracks) {
    if (!(await isFinished(id, track))) continue;
    // The id is written down before there is anything of that id, so that whatever follows is found
    // again.
    const footageId = (footage[track.name] ??= newId());
    await takes.update({ footage: madeCell(footage) }, { where: { id } });
    await keepTrack(context, take, track, footageId, events);
  }
  if (!Object.keys(footage).length) throw problem('take-empty');
  await takes.update({ status: 'kept' }, { where: { id } });
  return placementOf(context, id);
}

/** Makes footage of one track, as far as that is not done. */
async function keepTrack(
  context: ServerContext,
  take: Take,
  track: TrackSetup,
  footageId: string,
  events: readonly TakeEvent[],
): Promise<void> {
  const { footage } = context.db;
  if (!(await footage.count({ where: { id: footageId } }))) {
    const path = finishedPath(take.id, track);
    const extension = track.type === 'audio' ? 'wav' : 'mp4';
    // A second name for the same bytes: footage takes one, the drawer of takes keeps the other.
    const handed = `${path}.handed.${extension}`;
    await rm(handed, { force: true });
    await link(path, handed);
    await addFootage(context, {
      id: footageId,
      projectId: take.projectId,
      path: handed,
      name: `Take ${take.number} ${NAME_OF[track.name]}.${extension}`,
      role: ROLE_OF[track.name],
      take: true,
    });
  }
  const made = await findFootage(context, footageId);
  if (made.deletedAt) await made.update({ deletedAt: null });
  if (!mediaFactsOf(made)) await made.update(footageCells(await factsOfTrack(take.id, track)));
  if (track.name === 'screen' && !made.hasPointer) {
    const offset = clocksOf(events).screen?.offset ?? 0;
    const pointer = pointerTrackOf(events, mediaFactsOf(made)!, offset);
    if (pointer) await attachTrack(context, footageId, JSON.stringify(bridgeJoins(pointer)));
  }
}

async function placementOf(context: ServerContext, id: string): Promise<TakePlacement> {
  const { setup, footage, stepId } = await findTake(context, id);
  const events = readTakeEvents(await readEvents(id));
  const clocks = clocksOf(events);
  const tracks = await Promise.all(
    setup.tracks.flatMap((track) => {
      const footageId = footage[track.name];
      return footageId
        ? [placedTrack(context, track.name, footageId, clocks[track.name]?.offset ?? 0)]
        : [];
    }),
  );
  return { takeId: id, stepId, setup, tracks, events };
}

async function placedTrack(
  context: ServerContext,
  name: TrackName,
  footageId: string,
  offsetMs: number,
): Promise<TakePlacement['tracks'][number]> {
  const facts = mediaFactsOf(await findFootage(context, footageId))!;
  return {
    name,
    footageId,
    offset: secondsToTicks(offsetMs / 1000),
    duration: facts.duration,
    width: facts.width,
    height: facts.height,
  };
}
