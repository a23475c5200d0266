import { duplicateProject } from '@/contract/projects';
import { serve } from '@/server/http/serve';
import { duplicateProject as duplicate } from '@/server/projects';

export const POST = serve(duplicateProject, async ({ context, params }) => ({
  id: await duplicate(context, params.id),
}));
