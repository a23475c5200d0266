import { cancelAnalysis, readResult } from '@/server/analyses/analyses';
import { handle, jsonText } from '@/server/http/handle';

export const dynamic = 'force-dynamic';
type Context = { params: Promise<{ id: string }> };

/** What an analysis found. */
export const GET = handle<Context>(async (_request, { params }) =>
  jsonText(String(await readResult((await params).id))),
);

/** Stops an analysis. */
export const DELETE = handle<Context>(async (_request, { params }) => {
  await cancelAnalysis((await params).id);
  return null;
});
