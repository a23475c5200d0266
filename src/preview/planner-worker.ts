import { expose } from 'comlink';
import { nanoid } from 'nanoid';
import { planProject, type Plan } from '@/core/framing/plan';
import { lookAtFraming, type FramingLook } from '@/core/framing/other-views';
import type { Taste } from '@/core/framing/taste';
import type { Framing, Project } from '@/core/project/model';
import type { FootageFacts, Sources } from '@/core/project/sources';
import { keepClear, type ClearPlan } from '@/core/staging/keep-clear';
import { suggestLayouts, type SuggestedLayout } from '@/core/staging/suggest';
import type { Range } from '@/core/time/ranges';

/** Plans framings, and where the presenter stands, off the page's main thread. */
export class PlannerWorker {
  private known: Omit<Sources, 'footage'> = { pointers: {} };

  /** Keeps what recordings show, which can be large, for all plans from now on. */
  keep(known: Omit<Sources, 'footage'>): void {
    this.known = known;
  }

  look(
    project: Project,
    footage: Readonly<Record<string, FootageFacts>>,
    framing: Framing,
    taste: Taste,
  ): FramingLook {
    return lookAtFraming(project, { footage, ...this.known }, framing, taste);
  }

  keepClear(
    project: Project,
    footage: Readonly<Record<string, FootageFacts>>,
    range: Range | null,
    onProgress: (share: number) => void,
  ): ClearPlan {
    return keepClear(project, { footage, ...this.known }, range, onProgress);
  }

  suggestLayouts(
    project: Project,
    footage: Readonly<Record<string, FootageFacts>>,
  ): SuggestedLayout[] {
    return suggestLayouts(project, { footage, ...this.known });
  }

  plan(
    project: Project,
    footage: Readonly<Record<string, FootageFacts>>,
    taste: Taste,
    range: Range | null,
    onProgress: (share: number) => void,
  ): Plan {
    const sources = { footage, ...this.known };
    return planProject(project, sources, nanoid, { taste, range, onProgress });
  }
}

expose(new PlannerWorker());
