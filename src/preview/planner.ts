import { proxy, releaseProxy, wrap, type Remote } from 'comlink';
import type { Plan } from '@/core/framing/plan';
import type { FramingLook } from '@/core/framing/other-views';
import type { Taste } from '@/core/framing/taste';
import type { Framing, Project } from '@/core/project/model';
import type { Sources } from '@/core/project/sources';
import type { ClearPlan } from '@/core/staging/keep-clear';
import type { SuggestedLayout } from '@/core/staging/suggest';
import type { Range } from '@/core/time/ranges';
import type { PlannerWorker } from './planner-worker';

/**
 * Plans framings, and where the presenter stands, in a worker, which is started at the first plan
 * and ends with `close`.
 */
export class Planner {
  private worker: Worker | null = null;
  private remote: Remote<PlannerWorker> | null = null;
  private sent: Omit<Sources, 'footage'> | null = null;

  /**
   * Plans the framings of a project.
   *
   * @param onProgress is told the share that is done, 0 to 1
   */
  async plan(
    project: Project,
    sources: Sources,
    taste: Taste,
    range: Range | null,
    onProgress: (share: number) => void,
  ): Promise<Plan> {
    const remote = await this.told(sources);
    return remote.plan(project, sources.footage, taste, range, proxy(onProgress));
  }

  /**
   * Finds where the presenter has to stand so that what is shown is seen.
   *
   * @param onProgress is told the share that is done, 0 to 1
   */
  async keepClear(
    project: Project,
    sources: Sources,
    range: Range | null,
    onProgress: (share: number) => void,
  ): Promise<ClearPlan> {
    const remote = await this.told(sources);
    return remote.keepClear(project, sources.footage, range, proxy(onProgress));
  }

  /** Layouts that suit the steps of a project. */
  async suggestLayouts(project: Project, sources: Sources): Promise<SuggestedLayout[]> {
    const remote = await this.told(sources);
    return remote.suggestLayouts(project, sources.footage);
  }

  /** What a framing shows and leaves out, and what it could show instead. */
  async look(
    project: Project,
    sources: Sources,
    framing: Framing,
    taste: Taste,
  ): Promise<FramingLook> {
    const remote = await this.told(sources);
    return remote.look(project, sources.footage, framing, taste);
  }

  /** The worker, which knows what recordings show. */
  private async told({ footage: _, ...known }: Sources): Promise<Remote<PlannerWorker>> {
    this.worker ??= new Worker(new URL('./planner-worker.ts', import.meta.url), { type: 'module' });
    this.remote ??= wrap<PlannerWorker>(this.worker);
    const { sent } = this;
    const { remote } = this;
    if (sent?.pointers !== known.pointers || sent.sights !== known.sights) {
      this.sent = known;
      await remote.keep(known);
    }
    return remote;
  }

  close(): void {
    this.remote?.[releaseProxy]();
    this.worker?.terminate();
    this.remote = null;
    this.worker = null;
    this.sent = null;
  }
}
