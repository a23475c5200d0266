import { requestAnalysis } from '@/server/analyses/analyses';
import { AnalysisBody } from '@/server/http/bodies';
import { handle, readBody } from '@/server/http/handle';

type Context = { params: Promise<{ id: string }> };

/** Asks for an analysis of a recording. */
export const POST = handle<Context>(async (request, { params }) => {
  const { kind } = await readBody(request, AnalysisBody);
  return requestAnalysis((await params).id, kind);
});
