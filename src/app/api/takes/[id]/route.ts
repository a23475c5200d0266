import { changeTake, viewTake } from '@/contract/takes';
import { ChangeTakeBody } from '@/server/http/bodies';
import { serve } from '@/server/http/serve';
import { partSizes, setTakeDiscarded, viewTake as view } from '@/server/takes/takes';

export const dynamic = 'force-dynamic';

export const GET = serve(viewTake, async ({ context, params: { id } }) => ({
  ...(await view(context, id)),
  sizes: await partSizes(context, id),
}));

export const PATCH = serve(changeTake, ChangeTakeBody, ({ context, params, body }) =>
  setTakeDiscarded(context, params.id, body.discarded),
);
