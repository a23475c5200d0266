import { FOOTAGE_PARTS, footagePart, type FootagePart } from '@/contract/footage';
import { footageFile } from '@/server/footage/names';
import { findServedFootage } from '@/server/footage/view';
import { sendFile } from '@/server/http/send-file';
import { serve } from '@/server/http/serve';
import { notFound } from '@/server/problem';

export const dynamic = 'force-dynamic';

const FILES: Readonly<Record<FootagePart, { file: string; type: string }>> = {
  proxy: { file: 'proxy.mp4', type: 'video/mp4' },
  sound: { file: 'sound.webm', type: 'audio/webm' },
  thumbs: { file: 'thumbs.jpg', type: 'image/jpeg' },
  peaks: { file: 'peaks.bin', type: 'application/octet-stream' },
};

export const GET = serve(footagePart, async ({ context, request, params }) => {
  const part = FOOTAGE_PARTS.find((name) => name === params.part);
  if (!part) throw notFound('file');
  const { id } = await findServedFootage(context, params.id);
  const { file, type } = FILES[part];
  return sendFile(request, context.stores.files, footageFile(id, file), type);
});
