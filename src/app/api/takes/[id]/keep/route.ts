import { handle } from '@/server/http/handle';
import { keepTake } from '@/server/takes/keep';

type Context = { params: Promise<{ id: string }> };

export const POST = handle<Context>(async (_request, { params }) => keepTake((await params).id));
