import { readChanges, saveChange } from '@/contract/projects';
import { readChanges as read, saveChange as save } from '@/server/documents/save-change';
import { SaveChangeBody } from '@/server/http/bodies';
import { checkBody, readJson } from '@/server/http/handle';
import { serve } from '@/server/http/serve';
import { limit } from '@/server/limits';
import { problem } from '@/server/problem';

export const dynamic = 'force-dynamic';

/** What was changed since a revision, for a tab that is behind. */
export const GET = serve(readChanges, async ({ context, params, query }) => {
  const since = Number(query.get('since'));
  if (!Number.isSafeInteger(since) || since < 1)
    throw problem('bad-body', 'since must be a whole number of at least 1');
  return read(context, params.id, since);
});

/** The change itself is not checked by a class: `core` reads it. */
export const POST = serve(saveChange, async ({ context, request, params }) => {
  const bounds = { bytes: limit('change'), values: limit('changeValues') };
  const { delta, ...rest } = await readJson(request, bounds);
  const { base, key } = await checkBody(rest, SaveChangeBody);
  return { revision: await save(context, params.id, { base, key, delta }) };
});
