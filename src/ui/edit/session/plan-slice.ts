import type { Plan } from '@/core/framing/plan';
import { Taste, USUAL_TASTE } from '@/core/framing/taste';
import { isClearing } from '@/core/layout/clearing';
import { projectDuration, stepAt, stepRange } from '@/core/project/query';
import type { ClearPlan } from '@/core/staging/keep-clear';
import type { Range } from '@/core/time/ranges';
import { Planner } from '@/preview/planner';
import { keep, kept } from '../../parts/kept';
import { tell, tellFault } from '../../shell/notices-store';
import type { Change, EditorState, Get, PlanScope, PlanSlice } from './state';
import { rangeOf } from './range';

/** Where the browser keeps the taste of plans, which is a person's more than a project's. */
const KEPT_AS = 'vistum-framing-taste';

/** The stretch of the timeline that a scope means now; null for the whole. */
function rangeFor(state: EditorState, scope: PlanScope): Range | null {
  if (scope === 'range') return rangeOf(state);
  if (scope === 'project') return null;
  const step = stepAt(state.project, state.transport.getState().playhead);
  return step && stepRange(state.project, step.id);
}

/** What is to be said of where the presenter stands now. */
function clearWords({ spans, hidden: { before, after } }: ClearPlan): string {
  const time = (seconds: number) => `${seconds.toFixed(seconds < 10 ? 1 : 0)} s`;
  if (!before) return 'Nothing that was found on the screen lies behind the presenter.';
  const times = spans.length === 1 ? 'once' : `${spans.length} times`;
  const what = `Something on the screen lay behind the presenter for ${time(before)}`;
  if (!spans.length)
    return `${what}. Moving would not help: there is no more room elsewhere, or not for long.`;
  return `${what}, now for ${time(after)}. They stand in another corner ${times}.`;
}

/** Planning of framings, and of where the presenter stands, in a worker of its own. */
export function planSlice(set: Change, get: Get): PlanSlice {
  const planner = new Planner();
  let wanted = 0;
  let queue: Promise<unknown> = Promise.resolve();

  const plan = async (mine: number): Promise<Plan | null> => {
    // A newer one is asked for already.
    if (mine !== wanted) return null;
    const { project, sources, taste, planScope } = get();
    const range = rangeFor(get(), planScope);
    if (!range && planScope !== 'project') {
      tellFault(
        planScope === 'step'
          ? 'No step is at the playhead. Move it into one, or plan for the whole project.'
          : 'There is no range any more. Set one, or plan for the whole project.',
      );
      return null;
    }
    // What is told of it may come after the plan itself, on a way of its own.
    let over = false;
    const found = await planner.plan(project, sources, taste, range, (planning) => {
      if (!over) set({ planning });
    });
    over = true;
    if (mine !== wanted) return null;
    // What was planned for is not there any more.
    if (get().project !== project) return plan(mine);
    get().apply('set-framings', { framings: found.framings }, true);
    return found;
  };

  return {
    taste: kept(KEPT_AS, Taste) ?? USUAL_TASTE,
    planScope: 'project',
    planning: null,
    clearing: null,
    planFramings({ taste, scope } = {}) {
      if (taste) {
        set({ taste: { ...get().taste, ...taste } });
        keep(KEPT_AS, get().taste);
      }
      set({ planScope: scope ?? get().planScope, planning: 0 });
      const mine = ++wanted;
      const done = queue
        .then(() => plan(mine))
        .catch((error: unknown) => {
          console.error(error);
          tellFault('The framings could not be planned. Try once more.');
          return null;
        })
        .finally(() => {
          if (mine === wanted) set({ planning: null });
        });
      queue = done;
      return done;
    },
    async keepClear() {
      const { project, sources, apply } = get();
      const range = rangeOf(get());
      set({ clearing: 0 });
      try {
        const plan = await planner.keepClear(project, sources, range, (clearing) => {
          if (get().clearing !== null) set({ clearing });
        });
        // What it was planned for is not there any more.
        if (get().project !== project) return void get().keepClear();
        set({ clearing: null });
        const { start, end } = range ?? { start: 0, end: projectDuration(project) };
        if (plan.spans.length || project.layouts.some((span) => isClearing(span, { start, end })))
          apply('keep-clear', { start, end, spans: [...plan.spans] });
        tell(clearWords(plan));
      } catch (error) {
        set({ clearing: null });
        console.error(error);
        tellFault('It could not be found out where there is room. Try once more.');
      }
    },
    async suggestLayouts() {
      const { project, sources } = get();
      try {
        return await planner.suggestLayouts(project, sources);
      } catch (error) {
        console.error(error);
        tellFault('No layouts could be suggested. Try once more.');
        return null;
      }
    },
    async lookAtFraming(framing) {
      const { project, sources, taste } = get();
      try {
        return await planner.look(project, sources, framing, taste);
      } catch (error) {
        // It is only told, and nothing depends on it.
        console.error(error);
        return null;
      }
    },
    endPlanning() {
      wanted++;
      planner.close();
    },
  };
}
