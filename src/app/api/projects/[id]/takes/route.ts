import { BeginTakeBody } from '@/server/http/bodies';
import { handle, readBody } from '@/server/http/handle';
import { beginTake, listTakes } from '@/server/takes/takes';

export const dynamic = 'force-dynamic';
type Context = { params: Promise<{ id: string }> };

export const GET = handle<Context>(async (_request, { params }) => listTakes((await params).id));

export const POST = handle<Context>(async (request, { params }) => {
  const { id, stepId, kind, setup } = await readBody(request, BeginTakeBody);
  return beginTake((await params).id, id, stepId ?? null, kind, setup);
});
