import { attachTrack, findFootage, readTrack } from '@/server/footage';
import { handle } from '@/server/http/handle';
import { formText } from '@/server/http/uploads';
import type { MediaFacts } from '@/server/media/probe';
import { notFound } from '@/server/problem';

export const dynamic = 'force-dynamic';
type Context = { params: Promise<{ id: string }> };

export const GET = handle<Context>(async (_request, { params }) => {
  const row = await findFootage((await params).id);
  if (!row.hasPointer || !row.facts) throw notFound('pointer track');
  return readTrack(row.id, JSON.parse(row.facts) as MediaFacts);
});

export const POST = handle<Context>(async (request, { params }) =>
  attachTrack((await params).id, await formText(request, 'track')),
);
