import { statfs } from 'node:fs/promises';
import type { TakeView } from '@/contract/takes';
import type { TakeSetup, TrackSetup } from '@/core/take/setup';
import { TRACK_NAMES, type TakeKind, type TrackName } from '@/core/take/take';
import type { ServerContext } from '../context';
import type { TakeRow } from '../db/models';
import { dataDirectory } from '../places';
import { madeCell, setupCell, takeOf, type Take } from '../db/rows/takes';
import { findProject } from '../documents/documents';
import { bytesInWords, limit } from '../limits';
import { notFound, problem } from '../problem';
import { appendPart, EVENTS, partSize, type PartName } from './files';
import { inTurn } from './in-turn';

/**
 * A recording tab that was not heard of for this long has crashed, was closed, or lost its server.
 */
const SILENT_MS = 8000;

/** A track of a take by its name. */
export const trackOf = (take: Take, name: string): TrackSetup | undefined =>
  take.setup.tracks.find((t) => t.name === name);

const isLive = ({ status, seenAt }: Pick<TakeRow, 'status' | 'seenAt'>) =>
  status === 'recording' && Date.now() - seenAt < SILENT_MS;

/** A row as the interface is told of it. */
export function viewOf(row: TakeRow): TakeView {
  const { projectId: _, seenAt: __, ...told } = takeOf(row);
  return { ...told, live: isLive(row) };
}

/** All takes of a project, oldest first. */
export async function listTakes(context: ServerContext, projectId: string): Promise<TakeView[]> {
  const { takes } = context.db;
  const rows = await takes.findAll({
    where: { projectId },
    order: [
      ['createdAt', 'ASC'],
      ['id', 'ASC'],
    ],
  });
  return rows.map(viewOf);
}

/** The row of a take; throws a problem when there is none. */
export async function rowOf(context: ServerContext, id: string): Promise<TakeRow> {
  const { takes } = context.db;
  return (await takes.findByPk(id)) ?? Promise.reject(notFound('take'));
}

/** A take by its id. */
export const findTake = async (context: ServerContext, id: string): Promise<Take> =>
  takeOf(await rowOf(context, id));

/** A take as it is told. */
export const viewTake = async (context: ServerContext, id: string): Promise<TakeView> =>
  viewOf(await rowOf(context, id));

/** Begins a take under an id that the recording tab chose; asking twice does no harm. */
export async function beginTake(
  context: ServerContext,
  projectId: string,
  id: string,
  stepId: string | null,
  kind: TakeKind,
  setup: TakeSetup,
): Promise<TakeView> {
  const { takes } = context.db;
  await findProject(context, projectId);
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
        setup: setupCell(setup),
        footage: madeCell({}),
        seenAt: Date.now(),
      }),
    );
  });
}

/** A part by its name in an address. */
export function partOf(take: Take, name: string): PartName {
  if (name === EVENTS) return EVENTS;
  if (!(TRACK_NAMES as readonly string[]).includes(name) || !trackOf(take, name))
    throw notFound('track');
  return name as TrackName;
}

/**
 * Adds a piece to one part of a take.
 * @returns its size afterwards; smaller than `offset` when something before the piece is missing
 */
export async function addPiece(
  context: ServerContext,
  id: string,
  name: string,
  offset: number,
  bytes: Uint8Array,
): Promise<number> {
  if (bytes.length > limit('piece')) throw problem('body-too-large', bytesInWords(limit('piece')));
  return inTurn(id, async () => {
    const row = await rowOf(context, id);
    if (row.status !== 'recording') throw problem('take-ended');
    const take = takeOf(row);
    const part = partOf(take, name);
    const size = await appendPart(id, part, trackOf(take, name), offset, bytes);
    if (Date.now() - row.seenAt > 500) await row.update({ seenAt: Date.now() });
    return size;
  });
}

/** How much of each part has arrived. */
export async function partSizes(
  context: ServerContext,
  id: string,
): Promise<Record<string, number>> {
  const take = await findTake(context, id);
  const names: PartName[] = [...take.setup.tracks.map((t) => t.name), EVENTS];
  return Object.fromEntries(
    await Promise.all(
      names.map(async (name) => [name, await partSize(id, name, trackOf(take, name))]),
    ),
  );
}

/** @throws Problem unless a take has ended and its tracks are finished */
export function mustBeFinished({ status }: Pick<TakeView, 'status'>): void {
  if (status === 'recording') throw problem('take-running');
  if (status === 'closing') throw problem('take-closing');
}

/** Puts a take away, or takes that back. */
export async function setTakeDiscarded(
  context: ServerContext,
  id: string,
  discarded: boolean,
): Promise<TakeView> {
  const row = await rowOf(context, id);
  mustBeFinished(row);
  const kept = Object.keys(takeOf(row).footage).length > 0;
  await row.update({ status: discarded ? 'discarded' : kept ? 'kept' : 'stopped' });
  return viewOf(row);
}

/** Bytes that can still be written. */
export async function freeDisk(): Promise<number> {
  const { bavail, bsize } = await statfs(dataDirectory());
  return bavail * bsize;
}
