import { findProject } from '@/server/documents/documents';
import { listFootage } from '@/server/footage/view';
import { handle } from '@/server/http/handle';

export const dynamic = 'force-dynamic';
type Context = { params: Promise<{ id: string }> };

export const GET = handle<Context>(async (_request, { params }) => {
  const { id } = await params;
  await findProject(id);
  return listFootage(id);
});
