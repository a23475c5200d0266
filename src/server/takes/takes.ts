import { statfs } from 'node:fs/promises';
import type { TakeView } from '@/contract/takes';
import type { TakeSetup, TrackSetup } from '@/core/take/setup';
import { TRACK_NAMES, type EndReason, type TakeKind, type TrackName } from '@/core/take/take';
import { database } from '../db/connection';
import type { TakeRow } from '../db/models';
import { dataDirectory } from '../places';
import { isoOf, jsonOr } from '../db/stored';
import { findProject } from '../documents/documents';
import { bytesInWords, limit } from '../limits';
import { notFound, problem } from '../problem';
import { appendPart, closeSound, EVENTS, partSize, type PartName } from './files';
import { conformTracks } from './conform';
import { inTurn } from './in-turn';

/**
 * A recording tab that was not heard of for this long has crashed, was closed, or lost its server.
 */
const SILENT_MS = 8000;

const NO_SETUP: TakeSetup = {
  tracks: [],
  area: null,
  gain: 0,
  camera: { mirror: false, brightness: 0, contrast: 1, area: null },
  hold: null,
  layout: 'corner',
};

/** How a take was set up; one that can't be read any more has no tracks. */
export const setupOf = (row: TakeRow): TakeSetup => jsonOr<TakeSetup>(row.setup, NO_SETUP);
export const trackOf = (row: TakeRow, name: string): TrackSetup | undefined =>
  setupOf(row).tracks.find((t) => t.name === name);

const isLive = (row: TakeRow) => row.status === 'recording' && Date.now() - row.seenAt < SILENT_MS;

const viewOf = (row: TakeRow): TakeView => ({
  id: row.id,
  stepId: row.stepId,
  kind: row.kind as TakeKind,
  number: row.number,
  status: row.status,
  live: isLive(row),
  reason: row.reason as EndReason | null,
  seconds: row.seconds,
  setup: setupOf(row),
  footage: jsonOr<TakeView['footage']>(row.footage, {}),
  madeAt: isoOf(row.createdAt),
});

/** All takes of a project, oldest first. */
export async function listTakes(projectId: string): Promise<TakeView[]> {
  const { takes } = await database();
  const rows = await takes.findAll({
    where: { projectId },
    order: [
      ['createdAt', 'ASC'],
      ['id', 'ASC'],
    ],
  });
  return rows.map(viewOf);
}

export async function findTake(id: string): Promise<TakeRow> {
  const { takes } = await database();
  return (await takes.findByPk(id)) ?? Promise.reject(notFound('take'));
}

export const viewTake = async (id: string): Promise<TakeView> => viewOf(await findTake(id));

/** Begins a take under an id that the recording tab chose; asking twice does no harm. */
export async function beginTake(
  projectId: string,
  id: string,
  stepId: string | null,
  kind: TakeKind,
  setup: TakeSetup,
): Promise<TakeView> {
  const { takes } = await database();
  await findProject(projectId);
  return inTurn(`begin ${projectId}`, async () => {
    const there = await takes.findByPk(id);
    if (there && there.projectId !== projectId) throw problem('take-other-project');
    if (there) return viewOf(there);
    const others = await takes.findAll({ where: { projectId, status: 'recording' } });
    if (others.some(isLive)) throw problem('take-elsewhere');
    const number = (await takes.count({ where: { projectId, stepId } })) + 1;
    return viewOf(
      await takes.create({
        id,
        projectId,
        stepId,
        kind,
        number,
        status: 'recording',
        reason: null,
        seconds: 0,
        setup: JSON.stringify(setup),
        footage: '{}',
        seenAt: Date.now(),
      }),
    );
  });
}

/** A part by its name in an address. */
export function partOf(row: TakeRow, name: string): PartName {
  if (name === EVENTS) return EVENTS;
  if (!(TRACK_NAMES as readonly string[]).includes(name) || !trackOf(row, name))
    throw notFound('track');
  return name as TrackName;
}

/**
 * Adds a piece to one part of a take.
 * @returns its size afterwards; smaller than `offset` when something before the piece is missing
 */
export async function addPiece(
  id: string,
  name: string,
  offset: number,
  bytes: Uint8Array,
): Promise<number> {
  if (bytes.length > limit('piece')) throw problem('body-too-large', bytesInWords(limit('piece')));
  return inTurn(id, async () => {
    const row = await findTake(id);
    if (row.status !== 'recording') throw problem('take-ended');
    const part = partOf(row, name);
    const size = await appendPart(id, part, trackOf(row, name), offset, bytes);
    if (Date.now() - row.seenAt > 500) await row.update({ seenAt: Date.now() });
    return size;
  });
}

/** How much of each part has arrived. */
export async function partSizes(id: string): Promise<Record<string, number>> {
  const row = await findTake(id);
  const names: PartName[] = [...setupOf(row).tracks.map((t) => t.name), EVENTS];
  return Object.fromEntries(
    await Promise.all(
      names.map(async (name) => [name, await partSize(id, name, trackOf(row, name))]),
    ),
  );
}

/**
 * Ends a take properly, whatever ended it, so that it can be played and decided on. Asking twice
 * does no harm.
 */
export async function closeTake(id: string, reason: EndReason): Promise<TakeView> {
  return inTurn(id, async () => {
    const row = await findTake(id);
    if (row.status !== 'recording') return viewOf(row);
    const setup = setupOf(row);
    for (const track of setup.tracks) if (track.type === 'audio') await closeSound(id, track);
    const seconds = await conformTracks(id, setup);
    await row.update({ status: 'stopped', reason, seconds });
    return viewOf(row);
  });
}

/** Puts a take away, or takes that back. */
export async function setTakeDiscarded(id: string, discarded: boolean): Promise<TakeView> {
  const row = await findTake(id);
  if (row.status === 'recording') throw problem('take-running');
  const kept = row.footage !== '{}';
  await row.update({ status: discarded ? 'discarded' : kept ? 'kept' : 'stopped' });
  return viewOf(row);
}

/** Bytes that can still be written. */
export async function freeDisk(): Promise<number> {
  const { bavail, bsize } = await statfs(dataDirectory());
  return bavail * bsize;
}
