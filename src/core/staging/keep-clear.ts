import { attentionOf, type Attention } from '../framing/attention';
import { pageAt } from '../framing/cuts';
import { coveredIn, insetAt } from '../framing/inset';
import { isClearing } from '../layout/clearing';
import { layoutMomentAt } from '../layout/glide';
import { CORNERS } from '../layout/placement';
import type { Project } from '../project/model';
import { projectDuration } from '../project/query';
import type { Sources } from '../project/sources';
import { areaOf as pixelsOf, intersect, type Rect } from '../scale/rect';
import { sceneAt, screenIn } from '../scene/scene';
import type { Range } from '../time/ranges';
import { secondsToTicks, type Ticks } from '../time/ticks';
import { clearSpans, type ClearSpan } from './clear-spans';
import { cheapestCorners, type CornerMoment } from './corner-path';

/** Where the presenter stands so that what is shown is seen. */
export interface ClearPlan {
  readonly spans: readonly ClearSpan[];
  /** For how long something lay behind them, and does now, in seconds. */
  readonly hidden: { readonly before: number; readonly after: number };
}

/** The timeline is looked at so often a second. */
const RATE = 4;
/** What happens is to be seen so long before and after, in seconds. */
const BEFORE = 0.5;
const AFTER = 0.3;
/** A line of text of which so much is covered can't be read, and what happens not be seen. */
const COVERED = 0.15;
/** Text behind all of so much of the presenter's box costs 1 a second. */
const FULL = 0.15;
/** A line that can't be read costs so much a second however short it is. */
const UNREAD = 0.7;
/** What happens behind the presenter costs so much a second for a press, and less by its weight. */
const HAPPENS = 2;
const PRESS = 8;
/** Another corner than the usual one costs so much a second. */
const AWAY = 0.02;

interface Look {
  readonly cost: number;
  /** Whether something can't be seen for the presenter. */
  readonly hides: boolean;
}

const NOTHING: Look = { cost: 0, hides: false };
const coveredShare = (of: Rect, by: Rect): number =>
  pixelsOf(intersect(of, by)) / Math.max(1, pixelsOf(of));

/** What a presenter who stands on a part of a recording hides of it. */
function look(box: Rect, lines: readonly Rect[], happening: readonly Attention[]): Look {
  let text = 0;
  let hides = false;
  for (const line of lines) {
    const part = intersect(line, box);
    if (part.width <= 0 || part.height <= 0) continue;
    text += pixelsOf(part);
    hides ||= coveredShare(line, box) >= COVERED;
  }
  const share = Math.min(1, text / (FULL * Math.max(1, pixelsOf(box))));
  let cost = hides ? Math.max(UNREAD, share) : share;
  for (const { rect, weight, gain } of happening) {
    if (!gain) continue;
    const covered = coveredShare(rect, box);
    cost += HAPPENS * (weight / PRESS) * covered;
    hides ||= covered >= COVERED;
  }
  return { cost, hides };
}

/**
 * Finds where the presenter has to stand so that text and what happens on the screen can be seen:
 * in which corner from when to when, seldom moving and at calm moments. Only where a layout has
 * them where the project places them; what was set by hand stays.
 *
 * @param range what is planned, in ticks of the timeline; null for all
 * @param onProgress is told the share that is done, 0 to 1
 */
export function keepClear(
  project: Project,
  sources: Sources,
  range: Range | null,
  onProgress: (share: number) => void = () => undefined,
): ClearPlan {
  const whole = range ?? { start: 0, end: projectDuration(project) };
  const base = {
    ...project,
    layouts: project.layouts.filter((span) => !isClearing(span, whole)),
  };
  const home = CORNERS.indexOf(base.presenter.corner);
  const cornered = CORNERS.map((corner) => ({
    ...base,
    presenter: { ...base.presenter, corner },
  }));
  const step = secondsToTicks(1 / RATE);
  const count = Math.max(0, Math.ceil((whole.end - whole.start) / step));
  const happening = bySample(attentionOf(base, sources), whole.start, step, count);
  const moments: (CornerMoment | null)[] = [];
  const looks: (readonly Look[])[] = [];
  for (let i = 0; i < count; i++) {
    const time = whole.start + i * step;
    const { to } = layoutMomentAt(base.layouts, time);
    const seen = to.presenter === 'placed' ? screenIn(sceneAt(base, sources, time)) : null;
    const page = seen && pageAt(base, sources, seen.footage.id, time);
    const mine = seen ? happening[i]!.filter(({ footageId }) => footageId === seen.footage.id) : [];
    const all = cornered.map((one): Look => {
      const inset = seen && insetAt(one, sources, time);
      return inset ? look(coveredIn(seen.view, inset), page?.lines ?? [], mine) : NOTHING;
    });
    looks.push(all);
    const busy = mine.some(({ gain }) => gain > 0) || (seen?.moving ?? false);
    moments.push(
      to.presenter === 'placed'
        ? { costs: all.map(({ cost }, c) => (cost + (c === home ? 0 : AWAY)) / RATE), busy }
        : null,
    );
    if (i % 64 === 0) onProgress(i / count);
  }
  const path = cheapestCorners(moments, home);
  const seconds = (corner: (i: number) => number) =>
    looks.filter((all, i) => moments[i] && all[corner(i)]!.hides).length / RATE;
  const placed = moments.map((moment) => moment !== null);
  const spans = clearSpans(base, sources, { path, placed }, whole, step);
  return {
    spans,
    hidden: { before: seconds(() => home), after: seconds((i) => path[i]!) },
  };
}

/** What happens around each of the samples. */
function bySample(
  attention: readonly Attention[],
  start: Ticks,
  step: Ticks,
  count: number,
): Attention[][] {
  const samples: Attention[][] = Array.from({ length: count }, () => []);
  for (const one of attention) {
    const from = Math.ceil((one.start - secondsToTicks(BEFORE) - start) / step);
    const to = Math.floor((one.end + secondsToTicks(AFTER) - start) / step);
    for (let i = Math.max(0, from); i <= Math.min(count - 1, to); i++) samples[i]!.push(one);
  }
  return samples;
}
