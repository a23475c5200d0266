import { handle } from '@/server/http/handle';
import { duplicateProject } from '@/server/projects';

type Context = { params: Promise<{ id: string }> };

export const POST = handle<Context>(async (_request, { params }) => ({
  id: await duplicateProject((await params).id),
}));
