import { requestAnalysis } from '@/contract/analyses';
import { requestAnalysis as request } from '@/server/analyses/analyses';
import { requestAgain } from '@/server/analyses/request-again';
import { requestAlignment } from '@/server/analyses/request-alignment';
import { requestMatte } from '@/server/analyses/request-matte';
import { requestPrivate } from '@/server/analyses/request-private';
import { requestTrack } from '@/server/analyses/request-track';
import { AnalysisBody } from '@/server/http/bodies';
import { serve } from '@/server/http/serve';

export const POST = serve(requestAnalysis, AnalysisBody, ({ context, params, body }) => {
  switch (body.kind) {
    case 'track':
      return requestTrack(context, params.id, body.follow);
    case 'pointer-again':
      return requestAgain(context, params.id, body.again);
    case 'alignment':
      return requestAlignment(context, params.id, body.alignWith);
    case 'matte':
      return requestMatte(context, params.id, body.matte);
    case 'private':
      return requestPrivate(context, params.id, body.words);
    default:
      return request(context, params.id, body.kind);
  }
});
