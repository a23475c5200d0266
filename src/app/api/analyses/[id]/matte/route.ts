import { readMatte } from '@/contract/analyses';
import { matteFile } from '@/server/analyses/mattes';
import { sendFile } from '@/server/http/send-file';
import { serve } from '@/server/http/serve';

export const dynamic = 'force-dynamic';

export const GET = serve(readMatte, async ({ context, request, params }) =>
  sendFile(request, context.stores.files, await matteFile(context, params.id), 'video/mp4'),
);
