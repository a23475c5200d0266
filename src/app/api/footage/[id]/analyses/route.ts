import { requestAnalysis } from '@/contract/analyses';
import { requestAnalysis as request } from '@/server/analyses/analyses';
import { AnalysisBody } from '@/server/http/bodies';
import { serve } from '@/server/http/serve';

export const POST = serve(requestAnalysis, AnalysisBody, ({ context, params, body }) =>
  request(context, params.id, body.kind),
);
