import type { Framing, Project } from '../project/model';
import type { Sources } from '../project/sources';
import { targetOf } from '../project/targets';
import { isWithin, type Rect } from '../scale/rect';
import { wholeView } from '../scale/sharpness';
import type { Range } from '../time/ranges';
import { frameDuration, secondsToTicks, type Ticks } from '../time/ticks';
import type { Page } from '../vision/page';
import { attentionOf, type Attention } from './attention';
import { candidateViews } from './candidates';
import { addCosts, type Costs } from './cost';
import { lettersIn, pageAt } from './cuts';
import { insetAt } from './inset';
import { framingsOf, type PlannedView } from './framings';
import { LONGEST_RAMP } from './ramp';
import { searchViews, type Moment } from './search';
import { limitWithin, shotsOf, type Shot } from './shots';
import { LEAD, SHORTEST_HOLD, TAIL, USUAL_TASTE, type Taste } from './taste';

/** A plan of all framings of a project. */
export interface Plan {
  /** All framings afterwards, pinned ones included, in order. */
  readonly framings: Framing[];
  /** The resting views of what was planned, whole ones included, in order. */
  readonly views: readonly PlannedView[];
}

/** What a plan is made by. */
export interface PlanOptions {
  readonly taste?: Taste;
  /**
   * What is planned, in ticks of the timeline: framings that reach beyond it stay. Null for all.
   */
  readonly range?: Range | null;
  /** Is told now and then the share that is done, 0 to 1. */
  readonly onProgress?: (share: number) => void;
}

/** Nothing happens for so long, in seconds, that it is a moment of its own. */
const PAUSE = LEAD + TAIL + LONGEST_RAMP + SHORTEST_HOLD;

/** Small letters of so many CSS pixels can just be read: those of a text of some 12. */
const LEGIBLE = 6;

/** What a shot's views are chosen for: what is to be seen, and long pauses in between. */
function momentsOf(
  shot: Shot,
  attention: readonly Attention[],
  taste: Taste,
  insetFor: (time: Ticks) => Rect | null,
  pageFor: (time: Ticks) => Page | null,
): Moment[] {
  const moments: Moment[] = [];
  const around = secondsToTicks(LONGEST_RAMP / 2);
  const closestIn = (range: Range) =>
    typeof taste.limit === 'number'
      ? taste.limit
      : limitWithin(shot, range, taste.limit === 'rebuilt');
  const pauseAt = (from: Ticks, to: Ticks) => {
    if (to - from < secondsToTicks(PAUSE)) return;
    const start = from + secondsToTicks(TAIL) + around;
    const end = to === shot.end ? to : to - secondsToTicks(LEAD) - around;
    moments.push({
      ...{ start, end, attention: null, closest: closestIn({ start, end }) },
      ...{ inset: null, page: pageFor(start), letters: null },
    });
  };
  let seenUntil: Ticks | null = null;
  for (const one of attention) {
    const page = pageFor(one.start);
    moments.push({
      ...{ start: one.start, end: one.end, attention: one },
      ...{ closest: closestIn(one), inset: insetFor(one.start), page },
      letters: page && lettersIn(page, one.rect),
    });
    // A pointer that only rests or fidgets is a pause.
    if (!one.gain) continue;
    if (seenUntil !== null) pauseAt(seenUntil, one.start);
    seenUntil = Math.max(seenUntil ?? 0, one.end);
  }
  if (seenUntil !== null) pauseAt(seenUntil, shot.end);
  return moments.sort((a, b) => a.start - b.start);
}

const centre = ({ rect }: Attention) => ({
  x: rect.x + rect.width / 2,
  y: rect.y + rect.height / 2,
  width: 0,
  height: 0,
});

/** The resting views of one shot; none where nothing is to be seen. */
function planShot(
  project: Project,
  shot: Shot,
  attention: readonly Attention[],
  taste: Taste,
  insetFor: (time: Ticks) => Rect | null,
  pageFor: (time: Ticks) => Page | null,
  onProgress: (share: number) => void,
): PlannedView[] {
  const frame = project.canvas;
  const whole = wholeView(shot.area, frame);
  const within = attention.filter(
    (a) =>
      a.footageId === shot.footage.id &&
      a.start >= shot.start &&
      a.end <= shot.end &&
      isWithin(centre(a), whole),
  );
  if (!within.some(({ gain }) => gain)) return [];
  const moments = momentsOf(shot, within, taste, insetFor, pageFor);
  const places = moments.map(({ attention }, i) => attention ?? restingPlace(moments, i));
  const candidates = candidateViews(
    places,
    whole,
    frame,
    moments.map(({ closest }) => closest),
    moments.map(({ inset }) => inset),
    moments.map(({ page }) => page),
    taste,
  );
  // What begins and ends on frames may be a frame shorter.
  const hold = secondsToTicks(Math.max(SHORTEST_HOLD, taste.hold)) + frameDuration(frame.frameRate);
  const legible = LEGIBLE / targetOf(project.target.id).seenAt;
  const stretch = { start: shot.start, end: shot.end, hold, legible, endsWhole: shot.goesOn };
  return searchViews(stretch, moments, candidates, taste, onProgress).map((rest) => ({
    ...rest,
    footageId: shot.footage.id,
    isWhole: rest.view === whole,
    seen: moments
      .slice(rest.first, rest.last + 1)
      .flatMap(({ attention }) => (attention ? [attention] : [])),
  }));
}

/** A pause asks for no view of its own. */
const restingPlace = (moments: readonly Moment[], index: number): Attention => ({
  ...moments.findLast((m, i) => i < index && m.attention)!.attention!,
  ...{ kind: 'dwell', gain: 0, weight: 0, must: false },
});

/**
 * Plans the framings of a project as a whole, from what its pointer tracks tell. Every press is in
 * view, no view rests for less than the taste says, none is closer than the sharp limit of the
 * layout it is seen in unless the taste says so, and nothing moves for a pointer that only fidgets.
 * Pinned framings stay as they are and nothing is planned over them. The same project gives the
 * same plan.
 */
export function planProject(
  project: Project,
  sources: Sources,
  newId: () => string,
  { taste = USUAL_TASTE, range = null, onProgress = () => {} }: PlanOptions = {},
): Plan {
  const attention = attentionOf(project, sources);
  const stay = project.framings.filter(
    (f) => f.pinned || (range && (f.start < range.start || f.end > range.end)),
  );
  const shots = shotsOf(project, sources, stay, range);
  const insetFor = (time: Ticks) => insetAt(project, sources, time);
  const length = shots.reduce((sum, { start, end }) => sum + end - start, 0);
  let done = 0;
  const views = shots.flatMap((shot) => {
    const share = (shot.end - shot.start) / length;
    const before = done;
    done += share;
    const report = (part: number) => onProgress(before + part * share);
    const pageFor = (time: Ticks) => pageAt(project, sources, shot.footage.id, time);
    return planShot(project, shot, attention, taste, insetFor, pageFor, report);
  });
  onProgress(1);
  const wholes = new Map(
    shots.map(({ footage, area }) => [footage.id, wholeView(area, project.canvas)]),
  );
  const planned = framingsOf(project, views, (id) => wholes.get(id)!, newId);
  return { framings: [...stay, ...planned].sort((a, b) => a.start - b.start), views };
}

/** The costs of a plan, summed over its views. */
export const costsOfPlan = ({ views }: Plan): Costs =>
  views.reduce<Costs>((sum, { costs }) => addCosts(sum, costs), {});
