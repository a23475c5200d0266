import { changeFootage, setFootageDeleted } from '@/server/footage';
import { handle, readBody } from '@/server/http/handle';
import { ChangeFootageBody } from '@/server/http/bodies';

type Context = { params: Promise<{ id: string }> };

export const PATCH = handle<Context>(async (request, { params }) => {
  const { id } = await params;
  const { deleted, name, role } = await readBody(request, ChangeFootageBody);
  if (deleted !== undefined) await setFootageDeleted(id, deleted);
  if (name === undefined && role === undefined) return null;
  return changeFootage(id, { ...(name === undefined ? {} : { name }), ...(role === undefined ? {} : { role }) });
});
