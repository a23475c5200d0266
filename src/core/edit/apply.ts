import type { Project } from '../project/model';
import { diffProjects, type ProjectPatch } from './patch';

/** Changes a draft of the project in place; `applyEdit` keeps the original whole. */
export type Edit = (draft: Project) => void;

export interface Change {
  readonly forward: ProjectPatch;
  readonly inverse: ProjectPatch;
}

/**
 * A copy of a document that shares nothing with it. Plain loops: for the few kinds of values that
 * JSON has, they are quickest.
 */
function copyOf<T>(value: T): T {
  if (typeof value !== 'object' || value === null) return value;
  if (Array.isArray(value)) {
    const list: unknown[] = new Array(value.length);
    for (let i = 0; i < value.length; i++) list[i] = copyOf(value[i]);
    return list as T;
  }
  const copy: Record<string, unknown> = {};
  for (const key in value) copy[key] = copyOf(value[key]);
  return copy as T;
}

/** What two documents differ by, and the later one with what did not change shared. */
export function changeBetween(
  before: Project,
  after: Project,
): { project: Project; change: Change } {
  const { patch: forward, result } = diffProjects(before, after);
  return {
    project: result,
    change: { forward, inverse: result === before ? {} : diffProjects(result, before).patch },
  };
}

/**
 * What an edit makes of a project, and the patches that do and undo it. The project itself is not
 * changed.
 */
export function applyEdit(project: Project, edit: Edit): { project: Project; change: Change } {
  const draft = copyOf(project);
  edit(draft);
  return changeBetween(project, draft);
}
