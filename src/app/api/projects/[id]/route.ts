import type { History } from '@/core/edit/history';
import { handle, readBody } from '@/server/http/handle';
import { ChangeProjectBody, SaveBody } from '@/server/http/bodies';
import {
  openProject,
  renameProject,
  saveProject,
  setProjectDeleted,
  suggestCanvas,
} from '@/server/projects';

export const dynamic = 'force-dynamic';
type Context = { params: Promise<{ id: string }> };

export const GET = handle<Context>(async (_request, { params }) => {
  const { id } = await params;
  return { ...(await openProject(id)), suggestion: await suggestCanvas(id) };
});

export const PUT = handle<Context>(async (request, { params }) => {
  const { revision, project, history } = await readBody(request, SaveBody);
  return {
    revision: await saveProject(
      (await params).id,
      project,
      history as unknown as History,
      revision,
    ),
  };
});

export const PATCH = handle<Context>(async (request, { params }) => {
  const { id } = await params;
  const { name, deleted } = await readBody(request, ChangeProjectBody);
  if (deleted !== undefined) await setProjectDeleted(id, deleted);
  if (name !== undefined) await renameProject(id, name);
  return null;
});
