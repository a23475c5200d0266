import { ChangeTakeBody } from '@/server/http/bodies';
import { handle, readBody } from '@/server/http/handle';
import { partSizes, setTakeDiscarded, viewTake } from '@/server/takes/takes';

export const dynamic = 'force-dynamic';
type Context = { params: Promise<{ id: string }> };

export const GET = handle<Context>(async (_request, { params }) => {
  const { id } = await params;
  return { ...(await viewTake(id)), sizes: await partSizes(id) };
});

export const PATCH = handle<Context>(async (request, { params }) => {
  const { discarded } = await readBody(request, ChangeTakeBody);
  return setTakeDiscarded((await params).id, discarded);
});
