import { changeFootage, setFootageDeleted } from '@/server/footage/change';
import { handle, readBody } from '@/server/http/handle';
import { ChangeFootageBody } from '@/server/http/bodies';

type Context = { params: Promise<{ id: string }> };

export const PATCH = handle<Context>(async (request, { params }) => {
  const { id } = await params;
  const { deleted, ...change } = await readBody(request, ChangeFootageBody);
  if (deleted !== undefined) await setFootageDeleted(id, deleted);
  const given = Object.fromEntries(
    Object.entries(change).filter(([, value]) => value !== undefined),
  );
  return Object.keys(given).length ? changeFootage(id, given) : null;
});
