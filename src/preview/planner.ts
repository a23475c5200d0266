import { proxy, releaseProxy, wrap, type Remote } from 'comlink';
import type { Plan } from '@/core/framing/plan';
import type { Taste } from '@/core/framing/taste';
import type { Project } from '@/core/project/model';
import type { Sources } from '@/core/project/sources';
import type { Range } from '@/core/time/ranges';
import type { PlannerWorker } from './planner-worker';

/** Plans framings in a worker, which is started at the first plan and ends with `close`. */
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
    { footage, ...known }: Sources,
    taste: Taste,
    range: Range | null,
    onProgress: (share: number) => void,
  ): Promise<Plan> {
    this.worker ??= new Worker(new URL('./planner-worker.ts', import.meta.url), { type: 'module' });
    this.remote ??= wrap<PlannerWorker>(this.worker);
    const { sent } = this;
    if (sent?.pointers !== known.pointers || sent.sights !== known.sights)
      await this.remote.keep(known);
    this.sent = known;
    return this.remote.plan(project, footage, taste, range, proxy(onProgress));
  }

  close(): void {
    this.remote?.[releaseProxy]();
    this.worker?.terminate();
    this.remote = null;
    this.worker = null;
    this.sent = null;
  }
}
