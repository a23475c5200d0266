import { exportedFile } from '@/contract/exports';
import { FORMAT_FACTS } from '@/core/project/export-formats';
import { exportPath, findServedExport } from '@/server/export/job';
import { sendFile } from '@/server/http/send-file';
import { serve } from '@/server/http/serve';

export const dynamic = 'force-dynamic';

export const GET = serve(exportedFile, async ({ request, params, query }) => {
  const found = await findServedExport(params.id);
  const { mime, extension } = FORMAT_FACTS[found.settings.format];
  const name = query.has('download') ? `${found.name}.${extension}` : undefined;
  return sendFile(request, exportPath(found), mime, name);
});
