import { anchorFootage } from '../callout/anchor';
import { inTheme, rethemed, type Theme } from '../callout/theme';
import type { Callout, Project } from '../project/model';
import { footageOf, type Sources } from '../project/sources';

/** Pixels of what a callout stands on for one of the frame's; 1 where that is not known. */
function ratioOf({ canvas }: Project, sources: Sources, callout: Callout): number {
  const footage = footageOf(sources, anchorFootage(callout.anchor) ?? '');
  return footage ? footage.height / canvas.height : 1;
}

/** A new callout as the theme of its project says. */
export const inProjectTheme = (project: Project, sources: Sources, callout: Callout): Callout =>
  inTheme(callout, project.theme, ratioOf(project, sources, callout));

/** Changes the theme of a project, and with it the callouts that have what it said before. */
export function changeTheme(project: Project, sources: Sources, change: Partial<Theme>): void {
  const theme = { ...project.theme, ...change };
  for (const callout of project.callouts) {
    const ratio = ratioOf(project, sources, callout);
    Object.assign(callout, rethemed(callout, project.theme, theme, ratio));
  }
  project.theme = theme;
}
