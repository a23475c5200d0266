import { expose } from 'comlink';
import { nanoid } from 'nanoid';
import { planProject, type Plan } from '@/core/framing/plan';
import type { Taste } from '@/core/framing/taste';
import type { Project } from '@/core/project/model';
import type { FootageFacts } from '@/core/project/sources';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import type { Range } from '@/core/time/ranges';

/** Plans framings off the page's main thread. */
export class PlannerWorker {
  private pointers: Readonly<Record<string, PointerTrack>> = {};

  /** Keeps pointer tracks, which can be large, for all plans from now on. */
  keep(pointers: Readonly<Record<string, PointerTrack>>): void {
    this.pointers = pointers;
  }

  plan(
    project: Project,
    footage: Readonly<Record<string, FootageFacts>>,
    taste: Taste,
    range: Range | null,
    onProgress: (share: number) => void,
  ): Plan {
    const sources = { footage, pointers: this.pointers };
    return planProject(project, sources, nanoid, { taste, range, onProgress });
  }
}

expose(new PlannerWorker());
