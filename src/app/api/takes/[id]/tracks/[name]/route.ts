import { handle } from '@/server/http/handle';
import { sendFile } from '@/server/http/send-file';
import { limit } from '@/server/limits';
import { problem } from '@/server/problem';
import { readBytes } from '@/server/http/read-bytes';
import { finishedPath } from '@/server/takes/conform';
import { EVENTS, readEvents } from '@/server/takes/files';
import { addPiece, findTake, freeDisk, partOf, trackOf } from '@/server/takes/takes';

export const dynamic = 'force-dynamic';
type Context = { params: Promise<{ id: string; name: string }> };

export const GET = handle<Context>(async (request, { params }) => {
  const { id, name } = await params;
  const row = await findTake(id);
  if (partOf(row, name) === EVENTS)
    return new Response(await readEvents(id), {
      headers: { 'content-type': 'application/x-ndjson' },
    });
  const track = trackOf(row, name)!;
  return sendFile(
    request,
    finishedPath(id, track),
    track.type === 'audio' ? 'audio/wav' : 'video/mp4',
  );
});

/**
 * Adds the body at `upload-offset`; answers the size, which is smaller when something before it is
 * missing.
 */
export const PATCH = handle<Context>(async (request, { params }) => {
  const { id, name } = await params;
  const offset = Number(request.headers.get('upload-offset'));
  if (!Number.isInteger(offset) || offset < 0) throw problem('piece-misplaced');
  const size = await addPiece(id, name, offset, await readBytes(request, limit('piece')));
  return { size, free: await freeDisk() };
});
