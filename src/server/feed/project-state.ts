import type { ProjectState } from '@/contract/state';
import type { ServerContext } from '../context';
import { listAnalyses } from '../analyses/analyses';
import { listFootage } from '../footage/view';
import { listExports } from '../export/job';
import { findProject } from '../documents/documents';
import { listTakes } from '../takes/takes';

/** The state of a project; reads no document. */
export async function projectState(context: ServerContext, id: string): Promise<ProjectState> {
  const { revision, name } = await findProject(context, id);
  const [footage, exports, jobs, takes, analyses] = await Promise.all([
    listFootage(context, id),
    listExports(context, id),
    context.queue.active(id),
    listTakes(context, id),
    listAnalyses(context, id),
  ]);
  return { revision, name, footage, exports, jobs, takes, analyses };
}
