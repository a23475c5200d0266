import { beginTake, listTakes } from '@/contract/takes';
import { BeginTakeBody } from '@/server/http/bodies';
import { serve } from '@/server/http/serve';
import { beginTake as begin, listTakes as list } from '@/server/takes/takes';

export const dynamic = 'force-dynamic';

export const GET = serve(listTakes, ({ context, params }) => list(context, params.id));

export const POST = serve(beginTake, BeginTakeBody, ({ context, params, body }) =>
  begin(context, params.id, body.id, body.stepId ?? null, body.kind, body.setup),
);
