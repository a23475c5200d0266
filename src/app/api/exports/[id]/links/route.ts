import { readExportLinks } from '@/contract/exports';
import { exportedLinks, findServedExport } from '@/server/export/job';
import { sendFile } from '@/server/http/send-file';
import { serve } from '@/server/http/serve';
import { notFound } from '@/server/problem';

export const dynamic = 'force-dynamic';

export const GET = serve(readExportLinks, async ({ context, request, params }) => {
  const { id, name, result } = await findServedExport(context, params.id);
  if (!result?.links) throw notFound('links');
  const { files } = context.stores;
  return sendFile(request, files, exportedLinks(id), 'application/json', `${name}.links.json`);
});
