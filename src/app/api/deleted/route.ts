import { BringBackBody } from '@/server/http/bodies';
import { handle, readBody } from '@/server/http/handle';
import { bringBack, listDeleted } from '@/server/purge/deleted';

export const dynamic = 'force-dynamic';

/** What was deleted and can be brought back. */
export const GET = handle(async () => listDeleted());

/** Brings something back. */
export const POST = handle(async (request) => {
  const { kind, id } = await readBody(request, BringBackBody);
  await bringBack(kind, id);
  return null;
});
