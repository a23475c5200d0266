import { diffProjects, patchProject, type ProjectPatch } from '@/core/edit/patch';
import type { Project } from '@/core/project/model';
import type { Sources } from '@/core/project/sources';

/** What a worker is told of a project: what is new since it was told last. */
export interface ProjectNews {
  /** The whole document, the first time. */
  readonly project?: Project;
  /** What was changed of it since. */
  readonly patch?: ProjectPatch;
  readonly sources?: Sources;
}

/** The page's end: knows what its worker was told, and says only what is new. */
export class ProjectSender {
  private told: { project: Project; sources: Sources } | null = null;

  /**
   * What to tell the worker of a state; null when it knows it already. Documents that came of one
   * another by edits share what did not change, so that finding the difference is quick; sources,
   * with tracks of hundreds of thousands of samples, go only when they changed.
   */
  news(project: Project, sources: Sources): ProjectNews | null {
    const { told } = this;
    this.told = { project, sources };
    if (!told) return { project, sources };
    const { patch } = diffProjects(told.project, project);
    const same = sources === told.sources;
    if (same && !Object.keys(patch).length) return null;
    return { patch, ...(same ? {} : { sources }) };
  }
}

/** The worker's end: the project as it was told. */
export class ProjectReceiver {
  project: Project | null = null;
  sources: Sources = { footage: {}, pointers: {} };

  /** Takes in what is new. */
  receive({ project, patch, sources }: ProjectNews): void {
    if (project) this.project = project;
    else if (patch && this.project) this.project = patchProject(this.project, patch);
    if (sources) this.sources = sources;
  }
}
