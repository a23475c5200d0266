import { viewAt } from '../framing/view';
import { screenStage } from '../layout/rectangles';
import type { Project } from '../project/model';
import { areaOf, spanAt, visibleClip } from '../project/query';
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
  const layout = spanAt(project.layouts, time)?.kind ?? 'corner';
  if (layout === 'presenter' && visibleClip(project, 'presenter', time)) return null;
  const area = areaOf(project, footage);
  const alone = layout === 'side' && !visibleClip(project, 'presenter', time);
  const stage = screenStage(alone ? 'corner' : layout, project.canvas);
  const { rect } = viewAt(project.framings, footage.id, area, stage, time);
  const scale = viewScale(rect, stage);
  return {
    magnification: magnification(rect, area, project.canvas),
    scale,
    sharpness: judgeScale(scale),
  };
}
