import { localContext } from '@/server/context';
import { listProjects } from '@/server/projects';
import { ProjectsPage } from '@/ui/projects/ProjectsPage';

export default async function Page() {
  // What is wrong with the database is said by the page, which asks once more.
  const known = await localContext().then(listProjects, () => undefined);
  return <ProjectsPage known={known} />;
}
