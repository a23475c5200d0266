import { createProject, listProjects } from '@/contract/projects';
import { NewProjectBody } from '@/server/http/bodies';
import { serve } from '@/server/http/serve';
import { listProjects as list, newProject } from '@/server/projects';

export const dynamic = 'force-dynamic';

export const GET = serve(listProjects, ({ context }) => list(context));

export const POST = serve(createProject, NewProjectBody, async ({ context, body }) => {
  const { name, width, height, frameRate, target } = body;
  return {
    id: await newProject(
      context,
      name,
      width,
      height,
      { num: frameRate.num, den: frameRate.den },
      target,
    ),
  };
});
