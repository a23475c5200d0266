import type { ProjectState } from '@/contract/state';
import { listAnalyses } from '../analyses/analyses';
import { listFootage } from '../footage/view';
import { listExports } from '../export/job';
import { activeJobs } from '../jobs/queue';
import { findProject } from '../documents/documents';
import { listTakes } from '../takes/takes';

/** The state of a project; reads no document. */
export async function projectState(id: string): Promise<ProjectState> {
  const { revision, name } = await findProject(id);
  const [footage, exports, jobs, takes, analyses] = await Promise.all([
    listFootage(id),
    listExports(id),
    activeJobs(id),
    listTakes(id),
    listAnalyses(id),
  ]);
  return { revision, name, footage, exports, jobs, takes, analyses };
}
