import { readExported } from '@/contract/exports';
import { FORMAT_FACTS } from '@/core/project/export-formats';
import { exportedFile, findServedExport } from '@/server/export/job';
import { sendFile } from '@/server/http/send-file';
import { serve } from '@/server/http/serve';

export const dynamic = 'force-dynamic';

export const GET = serve(readExported, async ({ context, request, params, query }) => {
  const found = await findServedExport(context, params.id);
  const { mime, extension } = FORMAT_FACTS[found.settings.format];
  const name = query.has('download') ? `${found.name}.${extension}` : undefined;
  return sendFile(request, context.stores.files, exportedFile(found), mime, name);
});
