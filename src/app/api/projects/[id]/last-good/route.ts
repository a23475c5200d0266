import { openLastGood } from '@/contract/projects';
import { openLastGood as open } from '@/server/documents/documents';
import { LastGoodBody } from '@/server/http/bodies';
import { serve } from '@/server/http/serve';

export const POST = serve(openLastGood, LastGoodBody, async ({ context, params, body }) => ({
  revision: await open(context, params.id, body.revision),
}));
