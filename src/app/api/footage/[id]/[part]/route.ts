import { FOOTAGE_PARTS, footagePart } from '@/contract/footage';
import { footageFile, PART_FILES } from '@/server/footage/names';
import { findServedFootage } from '@/server/footage/view';
import { sendFile } from '@/server/http/send-file';
import { serve } from '@/server/http/serve';
import { notFound } from '@/server/problem';

export const dynamic = 'force-dynamic';

export const GET = serve(footagePart, async ({ context, request, params }) => {
  const part = FOOTAGE_PARTS.find((name) => name === params.part);
  if (!part) throw notFound('file');
  const { id } = await findServedFootage(context, params.id);
  const { file, type } = PART_FILES[part];
  return sendFile(request, context.stores.files, footageFile(id, file), type);
});
