import { addBed } from '@/contract/footage';
import { addBed as add } from '@/server/beds';
import { BedBody } from '@/server/http/bodies';
import { serve } from '@/server/http/serve';

export const POST = serve(addBed, BedBody, ({ context, params, body }) =>
  add(context, params.id, body.name),
);
