import { listAnalyses, type AnalysisView } from '../analyses/analyses';
import type { FootageView } from '../footage/view';
import { listFootage } from '../footage/view';
import { listExports, type ExportView } from '../export/job';
import { activeJobs, type ActiveJob } from '../jobs/queue';
import { findProject } from '../documents/documents';
import { listTakes, type TakeView } from '../takes/takes';

/** What is told of a project as it changes. */
export interface ProjectState {
  readonly revision: number;
  readonly name: string;
  readonly footage: readonly FootageView[];
  readonly exports: readonly ExportView[];
  readonly jobs: readonly ActiveJob[];
  readonly takes: readonly TakeView[];
  readonly analyses: readonly AnalysisView[];
}

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
