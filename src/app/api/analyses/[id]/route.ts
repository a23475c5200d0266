import { cancelAnalysis, readAnalysis } from '@/contract/analyses';
import { cancelAnalysis as cancel, readResult } from '@/server/analyses/analyses';
import { jsonText } from '@/server/http/handle';
import { serve } from '@/server/http/serve';

export const dynamic = 'force-dynamic';

export const GET = serve(readAnalysis, async ({ context, params }) =>
  jsonText(String(await readResult(context, params.id))),
);

export const DELETE = serve(cancelAnalysis, ({ context, params }) => cancel(context, params.id));
