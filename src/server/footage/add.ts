import { copyFile, readdir, rename, rm, stat } from 'node:fs/promises';
import { basename, extname, join } from 'node:path';
import { UNDECIDED } from '@/contract/footage';
import type { Role } from '@/core/project/sources';
import { inTransaction, database } from '../db/connection';
import { newId } from '../ids';
import { enqueue } from '../jobs/queue';
import { notFound, problem, systemProblem } from '../problem';
import { footageFolder } from './paths';

const EXTENSIONS = new Set(
  (
    '.mp4 .mov .m4v .mkv .webm .ogg .ogv .oga .opus .avi .wav .mp3 .m4a .aac .flac ' +
    '.png .jpg .jpeg .webp .svg'
  ).split(' '),
);
const LONGEST_NAME = 200;

/**
 * Refuses a file whose name already tells that it can't be used.
 *
 * @returns its extension in small letters, with the dot
 * @throws Problem
 */
export function checkExtension(name: string): string {
  const extension = extname(name).toLowerCase();
  if (EXTENSIONS.has(extension)) return extension;
  throw problem('kind-unread', basename(name).slice(0, LONGEST_NAME) || 'It');
}

export interface NewFootage {
  readonly projectId: string;
  readonly path: string;
  readonly name: string;
  readonly role: Role | null;
  /** Whether the file is taken over; otherwise it is copied. */
  readonly take: boolean;
  /**
   * Its id; asked for again with the same one, footage that is there stays and one that was begun
   * is done anew.
   */
  readonly id?: string;
}

/**
 * Makes a file footage of a project and queues its ingest; both count together or not at all.
 *
 * @returns ids of the footage and of the job
 */
export async function addFootage({
  projectId,
  path,
  name,
  role,
  take,
  id = newId(),
}: NewFootage): Promise<{ footageId: string; jobId: string }> {
  const { footage, projects } = await database();
  if (!(await projects.count({ where: { id: projectId, deletedAt: null } })))
    throw notFound('project');
  const extension = checkExtension(name);
  const shown = basename(name).slice(0, LONGEST_NAME);
  const { size } = await stat(path).catch(() => {
    throw problem('no-such-file', shown);
  });
  if (!size) throw problem('file-empty', shown);
  const folder = footageFolder(id);
  for (const left of await readdir(folder)) await rm(join(folder, left), { recursive: true });
  const file = `${newId()}${extension}`;
  try {
    if (take) await rename(path, join(folder, file));
    else await copyFile(path, join(folder, file));
    return await inTransaction(async (transaction) => {
      await footage.create(
        {
          id,
          projectId,
          name: shown,
          role: role ?? UNDECIDED,
          status: 'waiting',
          error: null,
          notes: '[]',
          file,
          bytes: size,
          facts: null,
          hasPointer: false,
          deletedAt: null,
        },
        { transaction },
      );
      return { footageId: id, jobId: await enqueue('ingest', projectId, id, transaction) };
    });
  } catch (error) {
    // What was taken over goes back, so that it can be tried again.
    if (take) await rename(join(folder, file), path).catch(() => undefined);
    await rm(folder, { recursive: true, force: true });
    throw systemProblem(error) ?? problem('copy-failed', shown);
  }
}
