import { receiveTrack } from '@/server/footage/receive-track';
import { trackPath } from '@/server/footage/paths';
import { findServedFootage } from '@/server/footage/view';
import { handle } from '@/server/http/handle';
import { sendFile } from '@/server/http/send-file';
import { notFound } from '@/server/problem';

export const dynamic = 'force-dynamic';
type Context = { params: Promise<{ id: string }> };

/** The track as it was attached; nothing is read here, since it can be large. */
export const GET = handle<Context>(async (request, { params }) => {
  const row = await findServedFootage((await params).id);
  if (!row.hasPointer) throw notFound('pointer track');
  return sendFile(request, trackPath(row.id), 'application/json');
});

/** Takes the body as a pointer track, which a job reads. */
export const POST = handle<Context>(async (request, { params }) =>
  receiveTrack((await params).id, request),
);
