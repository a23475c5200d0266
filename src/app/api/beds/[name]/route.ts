import { bedFile } from '@/server/beds';
import { handle } from '@/server/http/handle';
import { sendFile } from '@/server/http/send-file';

export const dynamic = 'force-dynamic';
type Context = { params: Promise<{ name: string }> };

export const GET = handle<Context>(async (request, { params }) =>
  sendFile(request, await bedFile((await params).name), 'audio/wav'),
);
