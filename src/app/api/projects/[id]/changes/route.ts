import { readChanges, saveChange } from '@/server/documents/save-change';
import { SaveChangeBody } from '@/server/http/bodies';
import { checkBody, handle, readJson } from '@/server/http/handle';
import { limit } from '@/server/limits';
import { problem } from '@/server/problem';

export const dynamic = 'force-dynamic';
type Context = { params: Promise<{ id: string }> };

/** What was changed since a revision, for a tab that is behind. */
export const GET = handle<Context>(async (request, { params }) => {
  const since = Number(new URL(request.url).searchParams.get('since'));
  if (!Number.isSafeInteger(since) || since < 1)
    throw problem('bad-body', 'since must be a whole number of at least 1');
  return readChanges((await params).id, since);
});

/** Saves what was changed since a revision. */
export const POST = handle<Context>(async (request, { params }) => {
  const bounds = { bytes: limit('change'), values: limit('changeValues') };
  const { delta, ...rest } = await readJson(request, bounds);
  const { base, key } = await checkBody(rest, SaveChangeBody);
  return { revision: await saveChange((await params).id, { base, key, delta }) };
});
