import { openProjectText, saveProjectBytes } from '@/server/documents/documents';
import { ChangeProjectBody } from '@/server/http/bodies';
import { handle, jsonText, readBody } from '@/server/http/handle';
import { readBytes } from '@/server/http/read-bytes';
import { limit } from '@/server/limits';
import { renameProject, setProjectDeleted, suggestCanvas } from '@/server/projects';

export const dynamic = 'force-dynamic';
type Context = { params: Promise<{ id: string }> };

export const GET = handle<Context>(async (_request, { params }) => {
  const { id } = await params;
  return jsonText(await openProjectText(id, { suggestion: await suggestCanvas(id) }));
});

export const PUT = handle<Context>(async (request, { params }) => ({
  revision: await saveProjectBytes((await params).id, await readBytes(request, limit('save'))),
}));

export const PATCH = handle<Context>(async (request, { params }) => {
  const { id } = await params;
  const { name, deleted } = await readBody(request, ChangeProjectBody);
  if (deleted !== undefined) await setProjectDeleted(id, deleted);
  if (name !== undefined) await renameProject(id, name);
  return null;
});
