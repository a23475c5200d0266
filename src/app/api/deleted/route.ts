import { bringBack, listDeleted } from '@/contract/disk';
import { BringBackBody } from '@/server/http/bodies';
import { serve } from '@/server/http/serve';
import { bringBack as bring, listDeleted as list } from '@/server/purge/deleted';

export const dynamic = 'force-dynamic';

export const GET = serve(listDeleted, ({ context }) => list(context));

export const POST = serve(bringBack, BringBackBody, ({ context, body }) =>
  bring(context, body.kind, body.id),
);
