import { changeTake, viewTake } from '@/contract/takes';
import { ChangeTakeBody } from '@/server/http/bodies';
import { serve } from '@/server/http/serve';
import { partSizes, setTakeDiscarded, viewTake as view } from '@/server/takes/takes';

export const dynamic = 'force-dynamic';

export const GET = serve(viewTake, async ({ params: { id } }) => ({
  ...(await view(id)),
  sizes: await partSizes(id),
}));

export const PATCH = serve(changeTake, ChangeTakeBody, ({ params, body }) =>
  setTakeDiscarded(params.id, body.discarded),
);
