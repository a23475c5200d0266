import { addBed } from '@/server/beds';
import { BedBody } from '@/server/http/bodies';
import { handle, readBody } from '@/server/http/handle';

type Context = { params: Promise<{ id: string }> };

export const POST = handle<Context>(async (request, { params }) =>
  addBed((await params).id, (await readBody(request, BedBody)).name),
);
