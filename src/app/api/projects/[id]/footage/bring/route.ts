import { bringFootage } from '@/server/footage/bring';
import { handle, readBody } from '@/server/http/handle';
import { BringFootageBody } from '@/server/http/bodies';

type Context = { params: Promise<{ id: string }> };

/**
 * Sees to it that a project has footage that copied clips need: from another project, or deleted
 * from this one.
 */
export const POST = handle<Context>(async (request, { params }) => {
  const { id } = await params;
  const { footageIds } = await readBody(request, BringFootageBody);
  return bringFootage(id, footageIds);
});
