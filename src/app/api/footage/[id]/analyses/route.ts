import { requestAnalysis } from '@/contract/analyses';
import { requestAnalysis as request } from '@/server/analyses/analyses';
import { AnalysisBody } from '@/server/http/bodies';
import { serve } from '@/server/http/serve';

export const POST = serve(requestAnalysis, AnalysisBody, ({ params, body }) =>
  request(params.id, body.kind),
);
