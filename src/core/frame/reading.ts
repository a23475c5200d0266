import { viewAt } from '../framing/view';
import type { Project } from '../project/model';
import { spanAt, visibleClip } from '../project/query';
import type { Sources } from '../project/sources';
import { judgeScale, magnification, viewScale, type Sharpness } from '../scale/sharpness';
import type { Ticks } from '../time/ticks';

/** What the sharpness reading under the Picture says. */
export interface ScaleReading {
  readonly magnification: number;
  /** Frame pixels for one footage pixel. */
  readonly scale: number;
  readonly sharpness: Sharpness;
}

/** The magnification and sharpness of the screen at an instant; null where no screen is seen. */
export function readScale(project: Project, sources: Sources, time: Ticks): ScaleReading | null {
  const clip = visibleClip(project, 'screen', time);
  const footage = clip && sources.footage[clip.footageId];
  if (!footage?.hasVideo) return null;
  if (spanAt(project.layouts, time)?.kind === 'presenter' && visibleClip(project, 'presenter', time)) return null;
  const { rect } = viewAt(project.framings, footage.id, footage, project.canvas, time);
  const scale = viewScale(rect, project.canvas);
  return { magnification: magnification(rect, footage, project.canvas), scale, sharpness: judgeScale(scale) };
}
