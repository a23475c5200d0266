import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { FileStore } from '@tus/file-store';
import { Server } from '@tus/server';
import { nanoid } from 'nanoid';
import { ROLES, type Role } from '@/core/project/sources';
import { addFootage, checkExtension } from '../footage';
import { dataFolder } from '../places';
import { Problem, sentenceFor } from '../problem';
import { findProject } from '../projects';
import { relinkFootage } from '../relink';

const LARGEST = 64 * 2 ** 30;

/** What the upload library takes as a refusal. */
const refusal = (error: unknown) => ({
  status_code: error instanceof Problem ? error.status : 500,
  body: sentenceFor(error),
});

function createServer(): Server {
  const directory = dataFolder('uploads');
  return new Server({
    path: '/api/uploads',
    datastore: new FileStore({ directory }),
    maxSize: LARGEST,
    relativeLocation: true,
    namingFunction: () => nanoid(),
    // An upload is accepted only for a project that exists, and for a kind of file that can be read.
    async onUploadCreate(_request, upload) {
      try {
        checkExtension(upload.metadata?.filename ?? '');
        await findProject(upload.metadata?.project ?? '');
      } catch (error) {
        throw refusal(error);
      }
      return {};
    },
    async onUploadFinish(_request, upload) {
      const {
        filename = 'recording',
        project = '',
        role = '',
        relink = '',
      } = (upload.metadata ?? {}) as Record<string, string>;
      try {
        if (relink) {
          await relinkFootage(relink, join(directory, upload.id), filename);
          return { headers: { 'x-vistum-footage': relink } };
        }
        const { footageId } = await addFootage(
          project,
          join(directory, upload.id),
          filename,
          (ROLES as readonly string[]).includes(role) ? (role as Role) : null,
          true,
        );
        await rm(join(directory, `${upload.id}.json`), { force: true });
        return { headers: { 'x-vistum-footage': footageId } };
      } catch (error) {
        throw refusal(error);
      }
    },
  });
}

const shared = globalThis as { vistumUploads?: Server };

/** The upload endpoint (tus, an open protocol for uploads that resume). */
export const uploads = (): Server => (shared.vistumUploads ??= createServer());

/** Text of a small file sent in a form. */
export async function formText(request: Request, field: string): Promise<string> {
  const form = await request.formData().catch(() => null);
  const value = form?.get(field);
  if (!(value instanceof Blob)) throw new Problem(400, 'No file came with the request.');
  return value.text();
}
