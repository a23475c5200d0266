import { copyFile, link, rm, stat } from 'node:fs/promises';
import { basename, extname, join } from 'node:path';
import { UNDECIDED } from '@/contract/footage';
import type { Role } from '@/core/project/sources';
import type { ServerContext } from '../context';
import { newId } from '../ids';
import { notFound, problem, systemProblem } from '../problem';
import { workFolder } from '../places';
import { footageFile, footageFiles } from './names';
import { queueIngest } from '../ingest/queue';

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
export async function addFootage(
  context: ServerContext,
  { projectId, path, name, role, take, id = newId() }: NewFootage,
): Promise<{ footageId: string; jobId: string }> {
  const { footage, projects } = context.db;
  if (!(await projects.count({ where: { id: projectId, deletedAt: null } })))
    throw notFound('project');
  const extension = checkExtension(name);
  const shown = basename(name).slice(0, LONGEST_NAME);
  const { size } = await stat(path).catch(() => {
    throw problem('no-such-file', shown);
  });
  if (!size) throw problem('file-empty', shown);
  const { files } = context.stores;
  await files.remove(footageFiles(id));
  const file = `${newId()}${extension}`;
  const handed = join(workFolder('added'), file);
  try {
    // What is taken over stays where it is until it counts, so that it can be tried again.
    await (take ? link(path, handed).catch(() => copyFile(path, handed)) : copyFile(path, handed));
    await files.put(footageFile(id, file), handed);
    const made = await context.db.transact(async (transaction) => {
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
      const jobId = await queueIngest(context, projectId, id, transaction);
      return { footageId: id, jobId };
    });
    if (take) await rm(path, { force: true });
    return made;
  } catch (error) {
    await rm(handed, { force: true });
    await files.remove(footageFiles(id));
    throw systemProblem(error) ?? problem('copy-failed', shown);
  }
}
