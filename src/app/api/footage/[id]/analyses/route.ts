import { requestAnalysis } from '@/contract/analyses';
import { requestAnalysis as request } from '@/server/analyses/analyses';
import { requestTrack } from '@/server/analyses/request-track';
import { AnalysisBody } from '@/server/http/bodies';
import { serve } from '@/server/http/serve';

export const POST = serve(requestAnalysis, AnalysisBody, ({ context, params, body }) =>
  body.kind === 'track'
    ? requestTrack(context, params.id, body.follow)
    : request(context, params.id, body.kind),
);
