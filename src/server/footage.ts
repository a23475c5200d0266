import { createHash } from 'node:crypto';
import { copyFile, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { basename, extname, join } from 'node:path';
import { newId } from './ids';
import { ROLES, type FootageFacts, type Role, type Sources } from '@/core/project/sources';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import { parsePointerTrack, PointerTrackError } from '@/core/telemetry/parse';
import { scaleTrack } from '@/core/telemetry/sample';
import { database } from './db/connection';
import type { FootageRow } from './db/models';
import { fitRole, UNDECIDED } from './ingest/guess-role';
import { enqueue } from './jobs/queue';
import type { MediaFacts } from './media/probe';
import { dataFolder } from './places';
import { describeSystemError, notFound, Problem } from './problem';

const EXTENSIONS = new Set([
  '.mp4',
  '.mov',
  '.m4v',
  '.mkv',
  '.webm',
  '.ogg',
  '.ogv',
  '.oga',
  '.opus',
  '.avi',
  '.wav',
  '.mp3',
  '.m4a',
  '.aac',
  '.flac',
  '.png',
  '.jpg',
  '.jpeg',
  '.webp',
  '.svg',
]);
const LARGEST_TRACK = 64 << 20;

/** The folder that holds a recording and what was made from it. */
export const footageFolder = (id: string): string => dataFolder('footage', id);

export const originalPath = (row: FootageRow): string => join(footageFolder(row.id), row.file);

const trackPath = (id: string): string => join(footageFolder(id), 'pointer.json');

/**
 * Refuses a file whose name already tells that it can't be used.
 * @throws Problem
 */
export function checkExtension(name: string): string {
  const extension = extname(name).toLowerCase();
  if (EXTENSIONS.has(extension)) return extension;
  throw new Problem(
    415,
    `${name} is not a kind of file that Vistum reads. Bring MP4, MOV, MKV, WebM, AVI, WAV, MP3, M4A, FLAC, OGG, PNG, JPEG, WebP or SVG.`,
  );
}

/** Footage as the interface and the command line tell it. */
export interface FootageView {
  readonly id: string;
  readonly name: string;
  readonly role: Role | typeof UNDECIDED;
  readonly status: FootageRow['status'];
  readonly error: string | null;
  readonly notes: readonly string[];
  readonly bytes: number;
  readonly facts: MediaFacts | null;
  readonly hasPointer: boolean;
  readonly tags: readonly string[];
  /** The part that is placed, in ticks of the recording. */
  readonly inPoint: number | null;
  readonly outPoint: number | null;
  /** The original is gone from the disk, or is not the file any more that was brought. */
  readonly trouble: 'gone' | 'changed' | null;
  readonly addedAt: string;
}

/** What is wrong with the file of a recording, if anything. */
async function troubleOf(row: FootageRow): Promise<FootageView['trouble']> {
  if (row.status !== 'ready') return null;
  const found = await stat(originalPath(row)).catch(() => null);
  return !found ? 'gone' : found.size === row.bytes ? null : 'changed';
}

const viewOf = async (row: FootageRow): Promise<FootageView> => ({
  id: row.id,
  name: row.name,
  role: row.role as Role,
  status: row.status,
  error: row.error,
  notes: JSON.parse(row.notes) as string[],
  bytes: row.bytes,
  facts: row.facts ? (JSON.parse(row.facts) as MediaFacts) : null,
  hasPointer: row.hasPointer,
  tags: JSON.parse(row.tags) as string[],
  inPoint: row.inPoint === null ? null : Number(row.inPoint),
  outPoint: row.outPoint === null ? null : Number(row.outPoint),
  trouble: await troubleOf(row),
  addedAt: row.createdAt.toISOString(),
});

/** All footage of a project, oldest first. */
export async function listFootage(projectId: string): Promise<FootageView[]> {
  const { footage } = await database();
  const rows = await footage.findAll({
    where: { projectId, deletedAt: null },
    order: [
      ['createdAt', 'ASC'],
      ['id', 'ASC'],
    ],
  });
  return Promise.all(rows.map(viewOf));
}

export async function findFootage(id: string): Promise<FootageRow> {
  const { footage } = await database();
  return (await footage.findByPk(id)) ?? Promise.reject(notFound('footage'));
}

/** What `core` needs to know of ready footage. */
export const factsOf = ({ id, name, role, facts }: FootageView): FootageFacts | null =>
  facts && {
    id,
    name,
    role: role as Role,
    kind: facts.kind,
    width: facts.width,
    height: facts.height,
    frameRate: facts.frameRate,
    duration: facts.duration,
    hasVideo: facts.hasVideo,
    hasAudio: facts.hasAudio,
  };

/** Footage facts and pointer tracks of a project. */
export async function loadSources(projectId: string): Promise<Sources> {
  const views = await listFootage(projectId);
  const footage: Record<string, FootageFacts> = {};
  const pointers: Record<string, PointerTrack> = {};
  for (const view of views) {
    const facts = factsOf(view);
    if (!facts) continue;
    footage[view.id] = facts;
    if (view.hasPointer) pointers[view.id] = await readTrack(view.id, facts);
  }
  return { footage, pointers };
}

/** The pointer track of a recording, in its pixels. */
export async function readTrack(
  id: string,
  size: { width: number; height: number },
): Promise<PointerTrack> {
  return scaleTrack(
    JSON.parse(await readFile(trackPath(id), 'utf8')) as PointerTrack,
    size.width,
    size.height,
  );
}

/**
 * Takes a file over as footage of a project and queues its ingest.
 *
 * @param path moved if `take` says so, copied otherwise
 * @returns ids of the footage and of the job
 */
export async function addFootage(
  projectId: string,
  path: string,
  name: string,
  role: Role | null,
  take: boolean,
): Promise<{ footageId: string; jobId: string }> {
  const { footage, projects } = await database();
  if (!(await projects.findByPk(projectId))) throw notFound('project');
  const extension = checkExtension(name);
  const { size } = await stat(path).catch(() => {
    throw new Problem(404, `There is no file ${name}.`);
  });
  if (!size) throw new Problem(422, `${name} is empty.`);
  const id = newId();
  const file = `${newId()}${extension}`;
  const target = join(footageFolder(id), file);
  try {
    if (take) await rename(path, target);
    else await copyFile(path, target);
  } catch (error) {
    await rm(footageFolder(id), { recursive: true, force: true });
    throw new Problem(507, describeSystemError(error) ?? `${name} could not be copied.`);
  }
  await footage.create({
    id,
    projectId,
    name: basename(name).slice(0, 200),
    role: role ?? UNDECIDED,
    status: 'waiting',
    error: null,
    notes: '[]',
    file,
    bytes: size,
    facts: null,
    hasPointer: false,
    deletedAt: null,
  });
  return { footageId: id, jobId: await enqueue('ingest', projectId, id) };
}

/** What can be changed of footage; the file itself never is. */
export interface FootageChange {
  readonly name?: string;
  readonly role?: Role;
  readonly tags?: readonly string[];
  readonly inPoint?: number | null;
  readonly outPoint?: number | null;
}

/** Changes name, role, tags, or the part that is placed. */
export async function changeFootage(
  id: string,
  { tags, ...change }: FootageChange,
): Promise<FootageView> {
  const row = await findFootage(id);
  if (change.role && !ROLES.includes(change.role)) throw new Problem(400, 'That is not a role.');
  const facts = row.facts ? (JSON.parse(row.facts) as MediaFacts) : null;
  if (change.role && facts) {
    const { note } = fitRole(change.role, facts);
    if (note) throw new Problem(422, `${row.name} can’t be that: ${note.split(',')[0]}.`);
  }
  const from = change.inPoint === undefined ? row.inPoint : change.inPoint;
  const to = change.outPoint === undefined ? row.outPoint : change.outPoint;
  if (from !== null && to !== null && Number(to) <= Number(from))
    throw new Problem(400, 'The out point lies before the in point.');
  await row.update({
    ...change,
    ...(tags
      ? { tags: JSON.stringify([...new Set(tags.map((t) => t.trim()).filter(Boolean))]) }
      : {}),
  });
  return viewOf(row);
}

/** Takes footage out of the project; its file stays until the project is gone, so that this can be undone. */
export async function setFootageDeleted(id: string, deleted: boolean): Promise<void> {
  await (await findFootage(id)).update({ deletedAt: deleted ? new Date() : null });
}

/** Reads a pointer track, mends what can be mended, and attaches it to a recording. */
export async function attachTrack(
  id: string,
  text: string,
): Promise<{ notes: readonly string[]; samples: number }> {
  const row = await findFootage(id);
  if (text.length > LARGEST_TRACK)
    throw new Problem(
      413,
      'The pointer track is larger than 64 MB. Split the recording, or sample the pointer less often.',
    );
  const facts = row.facts ? (JSON.parse(row.facts) as MediaFacts) : null;
  if (!facts?.hasVideo)
    throw new Problem(
      409,
      'A pointer track belongs to a recording with a picture that has been prepared. Wait until it is ready, then attach it.',
    );
  try {
    const { track, notes } = parsePointerTrack(text, facts);
    const part = `${trackPath(id)}.${createHash('sha1').update(String(Math.random())).digest('hex').slice(0, 8)}`;
    await writeFile(part, JSON.stringify(track));
    await rename(part, trackPath(id));
    await row.update({ hasPointer: true });
    return { notes, samples: track.samples.length };
  } catch (error) {
    if (error instanceof PointerTrackError) throw new Problem(422, error.message);
    throw error;
  }
}
