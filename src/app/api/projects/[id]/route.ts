import { changeProject, openProject, saveProject } from '@/contract/projects';
import { openProjectText, saveProjectBytes } from '@/server/documents/documents';
import { ChangeProjectBody } from '@/server/http/bodies';
import { jsonText } from '@/server/http/handle';
import { readBytes } from '@/server/http/read-bytes';
import { serve } from '@/server/http/serve';
import { limit } from '@/server/limits';
import { renameProject, setProjectDeleted, suggestCanvas } from '@/server/projects';

export const dynamic = 'force-dynamic';

export const GET = serve(openProject, async ({ context, params: { id } }) =>
  jsonText(await openProjectText(context, id, { suggestion: await suggestCanvas(context, id) })),
);

export const PUT = serve(saveProject, async ({ context, request, params }) => ({
  revision: await saveProjectBytes(context, params.id, await readBytes(request, limit('save'))),
}));

export const PATCH = serve(changeProject, ChangeProjectBody, async ({ context, params, body }) => {
  if (body.deleted !== undefined) await setProjectDeleted(context, params.id, body.deleted);
  if (body.name !== undefined) await renameProject(context, params.id, body.name);
});
