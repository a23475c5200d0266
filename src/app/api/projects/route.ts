import { handle, readBody } from '@/server/http/handle';
import { NewProjectBody } from '@/server/http/bodies';
import { listProjects, newProject } from '@/server/projects';

export const dynamic = 'force-dynamic';

export const GET = handle(async () => listProjects());

export const POST = handle(async (request) => {
  const { name, width, height, frameRate, target } = await readBody(request, NewProjectBody);
  return {
    id: await newProject(name, width, height, { num: frameRate.num, den: frameRate.den }, target),
  };
});
