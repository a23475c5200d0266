import { attachPointer, readPointer } from '@/contract/footage';
import { trackFile } from '@/server/footage/names';
import { receiveTrack } from '@/server/footage/receive-track';
import { findServedFootage } from '@/server/footage/view';
import { sendFile } from '@/server/http/send-file';
import { serve } from '@/server/http/serve';
import { notFound } from '@/server/problem';

export const dynamic = 'force-dynamic';

/** The track as it was attached; nothing is read here, since it can be large. */
export const GET = serve(readPointer, async ({ context, request, params }) => {
  const row = await findServedFootage(context, params.id);
  if (!row.hasPointer) throw notFound('pointer track');
  return sendFile(request, context.stores.files, trackFile(row.id), 'application/json');
});

export const POST = serve(attachPointer, ({ context, request, params }) =>
  receiveTrack(context, params.id, request),
);
