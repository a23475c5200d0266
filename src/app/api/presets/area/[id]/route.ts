import { RenameBody } from '@/server/http/bodies';
import { handle, readBody } from '@/server/http/handle';
import { deletePreset, renamePreset } from '@/server/presets';

type Context = { params: Promise<{ id: string }> };

export const PATCH = handle<Context>(async (request, { params }) => {
  await renamePreset((await params).id, (await readBody(request, RenameBody)).name);
  return null;
});

export const DELETE = handle<Context>(async (_request, { params }) => {
  await deletePreset((await params).id);
  return null;
});
