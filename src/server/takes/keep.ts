import { link } from 'node:fs/promises';
import { bridgeJoins } from '@/core/telemetry/bridge';
import { pointerTrackOf } from '@/core/take/pointer';
import { readTakeEvents, type TakeEvent, type TrackName } from '@/core/take/take';
import type { TakeSetup } from '@/core/take/setup';
import type { Role } from '@/core/project/sources';
import { secondsToTicks, type Ticks } from '@/core/time/ticks';
import { database } from '../db/connection';
import { addFootage, attachTrack, findFootage, originalPath } from '../footage';
import { probeMedia, type MediaFacts } from '../media/probe';
import { Problem } from '../problem';
import { clocksOf, finishedPath, isFinished } from './conform';
import { readEvents } from './files';
import { findTake, setupOf } from './takes';

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

/** All that the project needs to place a take. */
export interface TakePlacement {
  readonly takeId: string;
  readonly stepId: string | null;
  readonly setup: TakeSetup;
  readonly tracks: readonly {
    readonly name: TrackName;
    readonly footageId: string;
    readonly offset: Ticks;
    readonly duration: Ticks;
    readonly width: number;
    readonly height: number;
  }[];
  readonly events: readonly TakeEvent[];
}

/** Makes footage of a take's tracks, each with its facts at once, so that the take can be placed while previews are prepared. */
export async function keepTake(id: string): Promise<TakePlacement> {
  const { takes } = await database();
  const row = await findTake(id);
  if (row.status === 'recording')
    throw new Problem(409, 'The take is still being recorded. Stop it first.');
  const setup = setupOf(row);
  const footage = JSON.parse(row.footage) as Partial<Record<TrackName, string>>;
  const events = readTakeEvents(await readEvents(id));
  for (const track of setup.tracks) {
    if (footage[track.name] || !(await isFinished(id, track))) continue;
    const path = finishedPath(id, track);
    const extension = track.type === 'audio' ? 'wav' : 'mp4';
    // A second name for the same bytes: footage takes one, the drawer of takes keeps the other.
    const handed = `${path}.handed.${extension}`;
    await link(path, handed);
    const { footageId } = await addFootage(
      row.projectId,
      handed,
      `Take ${row.number} ${NAME_OF[track.name]}.${extension}`,
      ROLE_OF[track.name],
      true,
    );
    footage[track.name] = footageId;
    await takes.update({ footage: JSON.stringify(footage) }, { where: { id } });
    const made = await findFootage(footageId);
    const { facts, notes } = await probeMedia(originalPath(made));
    await made.update({ facts: JSON.stringify(facts), notes: JSON.stringify(notes) });
    if (track.name === 'screen') {
      const pointer = pointerTrackOf(events, facts, clocksOf(events).screen?.offset ?? 0);
      if (pointer) await attachTrack(footageId, JSON.stringify(bridgeJoins(pointer)));
    }
  }
  if (!Object.keys(footage).length)
    throw new Problem(
      422,
      'Nothing was recorded in this take: it ended before its first picture or sound was written.',
    );
  await takes.update({ status: 'kept' }, { where: { id } });
  return placementOf(id);
}

async function placementOf(id: string): Promise<TakePlacement> {
  const row = await findTake(id);
  const setup = setupOf(row);
  const footage = JSON.parse(row.footage) as Partial<Record<TrackName, string>>;
  const events = readTakeEvents(await readEvents(id));
  const clocks = clocksOf(events);
  const tracks = await Promise.all(
    setup.tracks.flatMap((track) => {
      const footageId = footage[track.name];
      return footageId ? [placedTrack(track.name, footageId, clocks[track.name]?.offset ?? 0)] : [];
    }),
  );
  return { takeId: id, stepId: row.stepId, setup, tracks, events };
}

async function placedTrack(
  name: TrackName,
  footageId: string,
  offsetMs: number,
): Promise<TakePlacement['tracks'][number]> {
  const facts = JSON.parse((await findFootage(footageId)).facts!) as MediaFacts;
  return {
    name,
    footageId,
    offset: secondsToTicks(offsetMs / 1000),
    duration: facts.duration,
    width: facts.width,
    height: facts.height,
  };
}
