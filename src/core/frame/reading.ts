import type { Project } from '../project/model';
import { isCrisp } from '../project/query';
import type { Sources } from '../project/sources';
import { judgeScale, type Sharpness } from '../scale/sharpness';
import { sceneAt, screenIn } from '../scene/scene';
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
  const screen = screenIn(sceneAt(project, sources, time));
  if (!screen) return null;
  const { magnification, frameScale: scale, footage, turn } = screen;
  const sharpness = judgeScale(scale, isCrisp(project, footage), turn);
  return { magnification, scale, sharpness };
}
