import { addPiece, takePart } from '@/contract/takes';
import { readBytes } from '@/server/http/read-bytes';
import { sendFile } from '@/server/http/send-file';
import { serve } from '@/server/http/serve';
import { limit } from '@/server/limits';
import { problem } from '@/server/problem';
import { finishedFile } from '@/server/takes/conform';
import { EVENTS, readEvents } from '@/server/takes/files';
import { addPiece as add, findTake, freeDisk, partOf, trackOf } from '@/server/takes/takes';

export const dynamic = 'force-dynamic';

export const GET = serve(takePart, async ({ context, request, params: { id, name } }) => {
  const row = await findTake(context, id);
  if (partOf(row, name) === EVENTS)
    return new Response(await readEvents(id), {
      headers: { 'content-type': 'application/x-ndjson' },
    });
  const track = trackOf(row, name)!;
  return sendFile(
    request,
    context.stores.takes,
    finishedFile(id, track),
    track.type === 'audio' ? 'audio/wav' : 'video/mp4',
  );
});

/** Answers the size, which is smaller when something before the piece is missing. */
export const PATCH = serve(addPiece, async ({ context, request, params: { id, name } }) => {
  const offset = Number(request.headers.get('upload-offset'));
  if (!Number.isInteger(offset) || offset < 0) throw problem('piece-misplaced');
  const size = await add(context, id, name, offset, await readBytes(request, limit('piece')));
  return { size, free: await freeDisk() };
});
