import { listFootage } from '@/server/footage';
import { handle } from '@/server/http/handle';
import { findProject } from '@/server/projects';

export const dynamic = 'force-dynamic';
type Context = { params: Promise<{ id: string }> };

export const GET = handle<Context>(async (_request, { params }) => {
  const { id } = await params;
  await findProject(id);
  return listFootage(id);
});
