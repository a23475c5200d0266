import type { Project } from '../project/model';
import { EditError } from './error';
import { unlockedClip } from './lookup';

/** The clips of a group. */
export const groupMembers = (project: Project, groupId: string): string[] =>
  project.lanes.flatMap((l) => l.clips.filter((c) => c.group === groupId).map((c) => c.id));

/** Makes one item of clips; those that were in other groups leave them. Answers the group's id. */
export function groupClips(
  project: Project,
  ids: readonly string[],
  name: string,
  newId: () => string,
): string {
  const clips = ids.map((id) => unlockedClip(project, id).clip);
  if (clips.length < 2) throw new EditError('Select two clips or more to group them.');
  const id = newId();
  project.groups.push({ id, name: name.slice(0, 200) });
  for (const clip of clips) clip.group = id;
  dropEmptyGroups(project);
  return id;
}

/** Lets the clips of a group be by themselves again. */
export function ungroup(project: Project, groupId: string): void {
  for (const id of groupMembers(project, groupId)) unlockedClip(project, id).clip.group = null;
  dropEmptyGroups(project);
}

/** Renames a group. */
export function renameGroup(project: Project, groupId: string, name: string): void {
  const group = project.groups.find((g) => g.id === groupId);
  if (!group) throw new EditError('That group is no longer there.');
  group.name = name.slice(0, 200);
}

/** Forgets groups of which nothing is left. */
function dropEmptyGroups(project: Project): void {
  const used = new Set(project.lanes.flatMap((l) => l.clips.map((c) => c.group)));
  project.groups = project.groups.filter((g) => used.has(g.id));
}
