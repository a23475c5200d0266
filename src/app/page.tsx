import { ProjectsPage } from '@/ui/projects/ProjectsPage';

export default function Page() {
  return <ProjectsPage />;
}
