import { Type } from '@sinclair/typebox';
import { canPlan } from '@/core/framing/doings';
import { COST_TERMS, totalOf, type Costs } from '@/core/framing/cost';
import { costsOfPlan, type Plan } from '@/core/framing/plan';
import { Taste } from '@/core/framing/taste';
import { usedFootage } from '@/core/project/query';
import { magnification } from '@/core/scale/sharpness';
import { checkOf } from '@/core/schema/check';
import { strict } from '@/core/schema/parts';
import { secondsToTicks, ticksToSeconds } from '@/core/time/ticks';
import { openProject } from '@/server/documents/documents';
import { loadSources } from '@/server/footage/facts';
import { listFootage } from '@/server/footage/view';
import { problem } from '@/server/problem';
import { parseRange, required, UsageError, type Values } from './arguments';
import type { Answer, Call } from './call';
import { lookThrough } from './analyse';
import { editProject } from './edit';

const checkTaste = checkOf(Type.Partial(strict(Taste.properties)));

/** What the options say of the taste. */
function readTaste({ limit, lively, hold }: Values): Partial<Taste> {
  const said = Object.entries({ limit, lively, hold }).filter(([, text]) => text !== undefined);
  const checked = checkTaste(Object.fromEntries(said.map(([name, text]) => [name, Number(text)])));
  if ('value' in checked) return checked.value;
  const [{ path, message }] = checked.faults as [{ path: string; message: string }];
  throw new UsageError(`--${path.slice(1)} ${message}.`);
}

const rounded = (costs: Costs): Costs =>
  Object.fromEntries(
    COST_TERMS.flatMap((term) => {
      const cost = Math.round((costs[term] ?? 0) * 100) / 100;
      return cost ? [[term, cost]] : [];
    }),
  );

const said = (costs: Costs): string =>
  Object.entries(rounded(costs))
    .map(([term, cost]) => `${term} ${cost.toFixed(2)}`)
    .join(', ') || 'nothing';

const span = (start: number, end: number): string =>
  `${ticksToSeconds(start).toFixed(2)}-${ticksToSeconds(end).toFixed(2)} s`;

/** What each view of a plan is for, and what it costs. */
function explained(plan: Plan, framings: readonly object[]): Answer {
  const views = plan.views.map(({ view, isWhole, start, end, seen, costs }) => ({
    start: ticksToSeconds(start),
    end: ticksToSeconds(end),
    rect: view,
    whole: isWhole,
    seen: seen.map((one) => ({ kind: one.kind, at: ticksToSeconds(one.start) })),
    costs: rounded(costs),
  }));
  const all = costsOfPlan(plan);
  const lines = plan.views.map(({ start, end, isWhole, seen, costs }) => {
    const kinds = seen.map((one) => `${one.kind} ${ticksToSeconds(one.start).toFixed(1)}`);
    return (
      `${span(start, end)}  ${isWhole ? 'whole screen' : 'closer'}: ` +
      `${kinds.join(', ') || 'nothing happens'}\n    costs ${said(costs)}`
    );
  });
  return {
    json: { framings, views, costs: rounded(all), total: totalOf(all) },
    text: [...lines, `In all ${totalOf(all).toFixed(2)}: ${said(all)}`].join('\n'),
  };
}

/** `vistum plan`: plans the framings of a project, and tells what they are for. */
export async function plan(call: Call): Promise<Answer> {
  const { operands, values, open } = call;
  const id = required(operands[0], 'PROJECT');
  const taste = readTaste(values);
  const seconds = values.range ? parseRange(values.range) : null;
  const context = await open();
  const { project } = await openProject(context, id);
  const used = usedFootage(project.lanes);
  for (const { id: footage, role, hasPointer, facts, status } of await listFootage(context, id))
    if (used.has(footage) && role === 'screen' && facts?.kind === 'video' && status === 'ready')
      if (!hasPointer) await lookThrough(context, footage, call);
  const sources = await loadSources(context, id, used);
  if (!canPlan(sources)) throw problem('nothing-to-plan');
  const range = seconds && {
    start: secondsToTicks(seconds.start),
    end: secondsToTicks(seconds.end),
  };
  const { result } = await editProject(context, id, 'plan-framings', { taste, range });
  const framings = result.framings.map((framing) => ({
    start: ticksToSeconds(framing.start),
    end: ticksToSeconds(framing.end),
    rect: framing.rect,
    magnification: magnification(framing.rect, sources.footage[framing.footageId]!, project.canvas),
    reason: framing.reason,
  }));
  if (values.explain) return explained(result, framings);
  const lines = result.framings.map(
    ({ start, end, reason }, i) =>
      `${span(start, end)}  ${framings[i]!.magnification.toFixed(2)}x  ${reason}`,
  );
  const none =
    'No framings: the pointer did nothing that asks for a closer view within the sharp limit.';
  return { json: framings, text: lines.join('\n') || none };
}
