import type { AnalysisView } from './analyses';
import type { ExportView } from './exports';
import type { FootageView } from './footage';
import type { ActiveJob } from './jobs';
import { route } from './route';
import type { TakeView } from './takes';

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

/** A project's state as it changes, as server-sent events. */
export const projectEvents = route<ProjectState>()('GET', '/api/projects/:id/events');
