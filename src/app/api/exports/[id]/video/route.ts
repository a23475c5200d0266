import { exportPath, findServedExport } from '@/server/export/job';
import { FORMAT_FACTS } from '@/core/project/export-formats';
import { handle } from '@/server/http/handle';
import { sendFile } from '@/server/http/send-file';

export const dynamic = 'force-dynamic';
type Context = { params: Promise<{ id: string }> };

export const GET = handle<Context>(async (request, { params }) => {
  const found = await findServedExport((await params).id);
  const download = new URL(request.url).searchParams.has('download');
  const { mime, extension } = FORMAT_FACTS[found.settings.format];
  return sendFile(
    request,
    exportPath(found),
    mime,
    download ? `${found.name}.${extension}` : undefined,
  );
});
