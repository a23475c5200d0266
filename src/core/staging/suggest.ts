import { attentionOf, type Attention } from '../framing/attention';
import { builtInOf, type LayoutKind } from '../layout/built-in';
import { KEEPS_CLEAR } from '../layout/clearing';
import { layoutMomentAt } from '../layout/glide';
import type { LaneKind, Project } from '../project/model';
import { isLaneOn, stepRange } from '../project/query';
import { clipEnd } from '../project/clip-time';
import type { Sources } from '../project/sources';
import { overlaps, type Range } from '../time/ranges';
import { secondsToTicks, ticksToSeconds } from '../time/ticks';
import { keepClear } from './keep-clear';

/** A layout for a step, and why. */
export interface SuggestedLayout extends Range {
  readonly stepId: string;
  readonly kind: LayoutKind;
  readonly reason: string;
}

/** What is known of a step: shares of its time, 0 to 1, and its length in seconds. */
export interface StepFacts {
  readonly seconds: number;
  readonly first: boolean;
  readonly last: boolean;
  /** Somebody is heard. */
  readonly voice: number;
  /** The presenter's recording is there. */
  readonly presenter: number;
  /** A screen recording is there. */
  readonly screen: number;
  /** Something happens on the screen. */
  readonly busy: number;
  /** Something lies behind the presenter wherever they stand. */
  readonly hidden: number;
}

/** Less than this share is nothing, more than that is all of it. */
const HARDLY = 0.1;
const MOSTLY = 0.6;
/** A talk is so long at least, in seconds, that it is worth to see who talks. */
const LONG_TALK = 8;
/** From these shares on all of the screen is needed. */
const NEEDED = { busy: 0.25, hidden: 0.4 };

/**
 * The layout that suits a step, with its reason; null where nobody is there to be shown.
 */
export function layoutFor(step: StepFacts): Pick<SuggestedLayout, 'kind' | 'reason'> | null {
  const { seconds, first, last, voice, presenter, screen, busy, hidden } = step;
  if (presenter < HARDLY) return null;
  const time = `${Math.round(seconds)} s`;
  if (screen < HARDLY) return { kind: 'presenter', reason: 'There is no screen recording here.' };
  const calm = busy < HARDLY;
  if (calm && (first || last) && voice > HARDLY)
    return {
      kind: 'presenter',
      reason: `${first ? 'A greeting' : 'A farewell'}: they talk, and nothing happens on the screen.`,
    };
  if (calm && voice >= MOSTLY && seconds >= LONG_TALK)
    return {
      kind: 'side',
      reason: `They talk for ${time} while next to nothing happens on the screen.`,
    };
  if (busy >= NEEDED.busy && hidden >= NEEDED.hidden)
    return {
      kind: 'screen',
      reason: 'All of the screen is needed: text or what happens lies behind them in any corner.',
    };
  return {
    kind: 'corner',
    reason: `Something happens on the screen for ${Math.round(busy * 100)} % of the time.`,
  };
}

/** The share of a stretch that others fill together. */
function filled(range: Range, others: readonly Range[]): number {
  let [sum, until] = [0, range.start];
  for (const { start, end } of [...others].sort((a, b) => a.start - b.start)) {
    const from = Math.max(start, until);
    const to = Math.min(end, range.end);
    if (to > from) {
      sum += to - from;
      until = to;
    }
  }
  return sum / Math.max(1, range.end - range.start);
}

/** What happens is looked at so long before and after, in seconds. */
const AROUND = 0.4;

function factsOf(
  project: Project,
  sources: Sources,
  range: Range,
  attention: readonly Attention[],
): Omit<StepFacts, 'first' | 'last'> {
  /** Clips that are heard or seen on lanes of a kind. */
  const on = (kind: LaneKind) =>
    project.lanes
      .filter((lane) => lane.kind === kind && isLaneOn(project, lane))
      .flatMap(({ clips }) => clips.filter(({ muted }) => kind !== 'voice' || !muted))
      .map((clip) => ({ start: clip.start, end: clipEnd(clip) }));
  const around = secondsToTicks(AROUND);
  const happens = attention
    .filter((one) => one.gain > 0 && overlaps(one, range))
    .map(({ start, end }) => ({ start: start - around, end: end + around }));
  const plain = { ...project, layouts: [] };
  const seconds = ticksToSeconds(range.end - range.start);
  return {
    seconds,
    voice: filled(range, on('voice')),
    presenter: filled(range, on('presenter')),
    screen: filled(range, on('screen')),
    busy: filled(range, happens),
    hidden: keepClear(plain, sources, range).hidden.after / Math.max(1e-6, seconds),
  };
}

/**
 * Layouts for the steps of a project, by who talks, what happens on the screen and how much of it
 * is needed; only those that differ from what a step has in its middle, and none for steps whose
 * layout is somebody's own.
 */
export function suggestLayouts(project: Project, sources: Sources): SuggestedLayout[] {
  const attention = attentionOf(project, sources);
  const placed = project.steps.flatMap(({ id }) => {
    const range = stepRange(project, id);
    return range && range.end > range.start ? [{ id, range }] : [];
  });
  return placed.flatMap(({ id, range }, i) => {
    const { to } = layoutMomentAt(project.layouts, (range.start + range.end) / 2);
    // Whoever makes room in one corner stands in another.
    const now = to.name === KEEPS_CLEAR ? 'corner' : builtInOf(to);
    const facts = factsOf(project, sources, range, attention);
    const found = layoutFor({ ...facts, first: i === 0, last: i === placed.length - 1 });
    if (!found || !now || found.kind === now) return [];
    return [{ stepId: id, ...range, ...found }];
  });
}
