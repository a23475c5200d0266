import { handle } from '@/server/http/handle';
import { findWall } from '@/server/wall';

type Context = { params: Promise<{ id: string }> };

export const POST = handle<Context>(async (_request, { params }) => ({
  wall: await findWall((await params).id),
}));
