import type { Framing, Project } from '../project/model';
import { same } from '../schema/same';
import { secondsToTicks, snapToFrame, type Ticks } from '../time/ticks';
import type { Attention } from './attention';
import { perceivedDistance, rampSeconds } from './ramp';
import type { Rest } from './search';

/** A resting view of a plan, with what it is for. */
export interface PlannedView extends Rest {
  readonly footageId: string;
  /** Whether it is the whole of the recording. */
  readonly isWhole: boolean;
  readonly seen: readonly Attention[];
}

/** What a view is for, in few words. */
function reasonFor(seen: readonly Attention[]): string {
  const count = (kind: Attention['kind']) => seen.filter((a) => a.kind === kind).length;
  const many = (n: number, one: string) => (n ? [n === 1 ? one : `${one} ×${n}`] : []);
  return [
    ...many(count('press'), 'press'),
    ...many(count('drag'), 'drag'),
    ...many(count('typing'), 'typing'),
    ...many(count('scroll'), 'scrolling'),
    ...many(count('opening'), 'opening'),
    ...many(count('dwell'), 'pointer resting'),
  ].join(', ');
}

/**
 * Framings for the resting views of a plan: the whole needs none. One that is there already just so
 * keeps its id.
 */
export function framingsOf(
  project: Project,
  views: readonly PlannedView[],
  wholeOf: (footageId: string) => Framing['rect'],
  newId: () => string,
): Framing[] {
  const onFrame = (time: Ticks) => snapToFrame(time, project.canvas.frameRate);
  return views.flatMap((view, i): Framing[] => {
    if (view.isWhole) return [];
    const next = views[i + 1];
    const continues = next?.from === view.end && next.footageId === view.footageId ? next : null;
    const start = onFrame(view.from);
    const rampIn = onFrame(view.start) - start;
    // A view that is followed by another one ends where the move to that begins.
    const end = onFrame(continues?.isWhole ? continues.start : view.end);
    const back = secondsToTicks(rampSeconds(perceivedDistance(view.view, wholeOf(view.footageId))));
    const rampOut = continues?.isWhole
      ? end - onFrame(continues.from)
      : continues
        ? Math.min(onFrame(back), end - start - rampIn)
        : 0;
    const rect = { ...view.view };
    // A framing that is planned again just so is the same one.
    const known = project.framings.find(
      (f) => !f.pinned && f.start === start && f.end === end && same(f.rect, rect),
    );
    return [
      {
        ...{ id: known?.id ?? newId(), start, end, rampIn, rampOut, footageId: view.footageId },
        ...{ rect, endRect: null, pinned: false, reason: reasonFor(view.seen) },
      },
    ];
  });
}
