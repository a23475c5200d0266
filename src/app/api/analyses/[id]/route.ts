import { cancelAnalysis, readAnalysis } from '@/contract/analyses';
import { cancelAnalysis as cancel, readResult } from '@/server/analyses/analyses';
import { jsonText } from '@/server/http/handle';
import { serve } from '@/server/http/serve';

export const dynamic = 'force-dynamic';

export const GET = serve(readAnalysis, async ({ params }) =>
  jsonText(String(await readResult(params.id))),
);

export const DELETE = serve(cancelAnalysis, ({ params }) => cancel(params.id));
