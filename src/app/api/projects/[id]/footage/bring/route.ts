import { bringFootage } from '@/contract/footage';
import { bringFootage as bring } from '@/server/footage/bring';
import { BringFootageBody } from '@/server/http/bodies';
import { serve } from '@/server/http/serve';

/** The footage may be another project's, or deleted from this one. */
export const POST = serve(bringFootage, BringFootageBody, ({ context, params, body }) =>
  bring(context, params.id, body.footageIds),
);
