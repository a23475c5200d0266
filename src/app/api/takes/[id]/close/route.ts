import { CloseTakeBody } from '@/server/http/bodies';
import { handle, readBody } from '@/server/http/handle';
import { closeTake } from '@/server/takes/takes';

type Context = { params: Promise<{ id: string }> };

export const POST = handle<Context>(async (request, { params }) => {
  const { reason } = await readBody(request, CloseTakeBody);
  return closeTake((await params).id, reason);
});
