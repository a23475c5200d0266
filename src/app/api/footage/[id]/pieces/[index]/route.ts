import { footagePiece } from '@/contract/footage';
import { footageFile, pieceFile } from '@/server/footage/names';
import { findServedFootage } from '@/server/footage/view';
import { sendFile } from '@/server/http/send-file';
import { serve } from '@/server/http/serve';
import { notFound } from '@/server/problem';

export const dynamic = 'force-dynamic';

export const GET = serve(footagePiece, async ({ context, request, params }) => {
  if (!/^\d{1,4}$/.test(params.index)) throw notFound('file');
  const { id } = await findServedFootage(context, params.id);
  const file = footageFile(id, pieceFile(Number(params.index)));
  return sendFile(request, context.stores.files, file, 'video/mp4');
});
