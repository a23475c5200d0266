import { openLastGood } from '@/server/documents/documents';
import { LastGoodBody } from '@/server/http/bodies';
import { handle, readBody } from '@/server/http/handle';

type Context = { params: Promise<{ id: string }> };

/** Opens a damaged project at its last good revision. */
export const POST = handle<Context>(async (request, { params }) => {
  const { revision } = await readBody(request, LastGoodBody);
  return { revision: await openLastGood((await params).id, revision) };
});
