import type { Project } from '@/core/project/model';
import { projectDuration } from '@/core/project/query';

/**
 * What the list of projects tells of a document, kept beside it so that the list never opens one.
 */
export interface Summary {
  readonly width: number;
  readonly height: number;
  readonly rateNum: number;
  readonly rateDen: number;
  /** Ticks. */
  readonly duration: number;
}

/** The summary of a document that is sound. */
export const summaryOf = (project: Project): Summary => ({
  width: project.canvas.width,
  height: project.canvas.height,
  rateNum: project.canvas.frameRate.num,
  rateDen: project.canvas.frameRate.den,
  duration: projectDuration(project),
});

/** The summary of a stored document; null when it can't be read, whatever is wrong with it. */
export function summaryOfText(text: string): Summary | null {
  try {
    const found = summaryOf(JSON.parse(text) as Project);
    return Object.values(found).every((n) => Number.isFinite(n)) ? found : null;
  } catch {
    return null;
  }
}
