import { enablePatches, produceWithPatches, setAutoFreeze, applyPatches, type Patch } from 'immer';
import type { Project } from '../project/model';

enablePatches();
setAutoFreeze(true);

/** Changes a draft of the project in place; `applyEdit` keeps the original whole. */
export type Edit = (draft: Project) => void;

export interface Change {
  readonly forward: readonly Patch[];
  readonly inverse: readonly Patch[];
}

/** What an edit makes of a project, and the patches that do and undo it. The project itself is not changed. */
export function applyEdit(project: Project, edit: Edit): { project: Project; change: Change } {
  const [next, forward, inverse] = produceWithPatches(project, (draft: Project) => {
    edit(draft);
  });
  return { project: next, change: { forward, inverse } };
}

/** A project after patches, as undo and redo need it. */
export const patchProject = (project: Project, patches: readonly Patch[]): Project => applyPatches(project, patches as Patch[]);
