import { listFootage } from '@/contract/footage';
import { findProject } from '@/server/documents/documents';
import { listFootage as list } from '@/server/footage/view';
import { serve } from '@/server/http/serve';

export const dynamic = 'force-dynamic';

export const GET = serve(listFootage, async ({ context, params: { id } }) => {
  await findProject(context, id);
  return list(context, id);
});
