import { bedSound } from '@/contract/footage';
import { bedFile } from '@/server/beds';
import { sendFile } from '@/server/http/send-file';
import { serve } from '@/server/http/serve';

export const dynamic = 'force-dynamic';

export const GET = serve(bedSound, async ({ context, request, params }) =>
  sendFile(request, context.stores.files, await bedFile(context, params.name), 'audio/wav'),
);
