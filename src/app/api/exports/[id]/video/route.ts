import { exportPath, findExport } from '@/server/export/job';
import { handle } from '@/server/http/handle';
import { sendFile } from '@/server/http/send-file';

export const dynamic = 'force-dynamic';
type Context = { params: Promise<{ id: string }> };

export const GET = handle<Context>(async (request, { params }) => {
  const found = await findExport((await params).id);
  const download = new URL(request.url).searchParams.has('download');
  return sendFile(request, exportPath(found.id), 'video/mp4', download ? `${found.name}.mp4` : undefined);
});
