import { closeTake } from '@/contract/takes';
import { CloseTakeBody } from '@/server/http/bodies';
import { serve } from '@/server/http/serve';
import { closeTake as close } from '@/server/takes/close';

export const POST = serve(closeTake, CloseTakeBody, ({ context, params, body }) =>
  close(context, params.id, body.reason),
);
