import { constants } from 'node:fs';
import { access, rm, statfs } from 'node:fs/promises';
import { join } from 'node:path';
import { FileStore } from '@tus/file-store';
import { ERRORS, Server } from '@tus/server';
import type { ServerContext } from '../context';
import { findProject } from '../documents/documents';
import { addFootage, checkExtension } from '../footage/add';
import { relinkFootage } from '../footage/relink';
import { findServedFootage } from '../footage/view';
import { newId } from '../ids';
import { limit } from '../limits';
import { dataFolder } from '../places';
import { readMetadata } from './upload-metadata';
import { problem, problemFor, systemProblem, type Problem } from '../problem';

/** Room that must stay free beside an upload, in bytes. */
const SPARE = 64 << 20;

/** What the upload library takes as a refusal. */
function refusal(error: unknown): { status_code: number; body: string } {
  const found = problemFor(error);
  if (found.code === 'unexpected') console.error(error);
  return { status_code: found.status, body: found.message };
}

/**
 * An upload is accepted only for a project that exists, for a kind of file that can be read, and
 * when there is room.
 */
async function checkUpload(
  context: ServerContext,
  said: unknown,
  size: number,
  directory: string,
): Promise<void> {
  const { filename, project, relink } = readMetadata(said);
  checkExtension(filename);
  await findProject(context, project);
  if (relink && (await findServedFootage(context, relink)).projectId !== project)
    throw problem('other-project');
  const { bavail, bsize } = await statfs(directory);
  if (size + SPARE > bavail * bsize) throw problem('system-disk-full');
}

/** The store says only that a piece could not be written; the disk says why. */
async function whyNotWritten(said: string, directory: string): Promise<Problem | null> {
  if (said !== ERRORS.FILE_WRITE_ERROR.body) return null;
  const { bavail, bsize } = await statfs(directory);
  if (bavail * bsize < SPARE) return problem('system-disk-full');
  const writable = await access(directory, constants.W_OK).then(
    () => true,
    () => false,
  );
  return writable ? null : problem('system-not-allowed');
}

function createServer(context: ServerContext): Server {
  const directory = dataFolder('uploads');
  return new Server({
    path: '/api/uploads',
    datastore: new FileStore({ directory }),
    maxSize: limit('upload'),
    relativeLocation: true,
    // No other site may ask for or send anything.
    allowedOrigins: [],
    namingFunction: () => newId(),
    async onUploadCreate(_request, upload) {
      try {
        await checkUpload(context, upload.metadata, upload.size ?? 0, directory);
      } catch (error) {
        throw refusal(error);
      }
      return {};
    },
    async onUploadFinish(_request, upload) {
      const { filename, project, role, relink } = readMetadata(upload.metadata);
      const path = join(directory, upload.id);
      try {
        let footageId = relink;
        if (relink) await relinkFootage(context, project, relink, path, filename);
        else
          ({ footageId } = await addFootage(context, {
            projectId: project,
            path,
            name: filename,
            role,
            take: true,
          }));
        await rm(`${path}.json`, { force: true });
        return { headers: { 'x-vistum-footage': footageId! } };
      } catch (error) {
        // Who brought it still has it, and is told what to do.
        for (const left of [path, `${path}.json`]) await rm(left, { force: true });
        throw refusal(error);
      }
    },
    // A full disk or a folder that can't be written to gets its sentence here too.
    async onResponseError(_request, error) {
      const found =
        error instanceof Error ? systemProblem(error) : await whyNotWritten(error.body, directory);
      return found ? refusal(found) : undefined;
    },
  });
}

const shared = globalThis as { vistumUploads?: Server };

/** The upload endpoint (tus, an open protocol for uploads that resume). */
export const uploads = (context: ServerContext): Server =>
  (shared.vistumUploads ??= createServer(context));
