import type { Framing, Project } from '../project/model';
import { areaOf } from '../project/query';
import { footageOf, type Sources } from '../project/sources';
import {
  areaOf as pixelsOf,
  cornersOf,
  intersect,
  isWithin,
  middleOf,
  rectAround,
  turnedAbout,
  type InFootage,
} from '../scale/rect';
import { sharpLimit, wholeView } from '../scale/sharpness';
import { framingLimits, limitsAlong } from '../scene/limits';
import { contains } from '../time/ranges';
import { attentionOf, type Attention } from './attention';
import { candidateViews } from './candidates';
import { costOfCuts, costOfSeeing, totalOf } from './cost';
import { pageAt } from './cuts';
import { edgesOf } from './edge-index';
import { insetAt } from './inset';
import type { Taste } from './taste';

/** A view that a framing could have instead. */
export interface OtherView {
  readonly rect: InFootage;
  readonly magnification: number;
  /** How many of the things that are done meanwhile are seen in it, of how many. */
  readonly seen: number;
  readonly of: number;
}

/** What a framing is for, and what else it could show. */
export interface FramingLook {
  /** What is done in it while it rests, in order. */
  readonly seen: readonly Attention[];
  /** What is done meanwhile beyond its edge. */
  readonly missed: readonly Attention[];
  /** Other views for the same, the best first. */
  readonly others: readonly OtherView[];
}

/** So many other views are offered at most. */
const OFFERED = 3;
/** Views that share so much of their area show the same. */
const ALIKE = 0.86;

/** The share of two views' common area of all that they cover. */
function likeness(a: InFootage, b: InFootage): number {
  const shared = pixelsOf(intersect(a, b));
  return shared / (pixelsOf(a) + pixelsOf(b) - shared);
}

/** Whether all of a rectangle is seen in the view of a framing, as that is turned. */
const shows = ({ rect, turn = 0 }: Framing, what: InFootage): boolean =>
  isWithin(
    rectAround(cornersOf(what).map((corner) => turnedAbout(corner, middleOf(rect), turn))),
    rect,
  );

/**
 * What a framing shows and leaves out, and the next best views for the same stretch, by the costs
 * that plans are made by. All within the limits of the taste; none that leaves out a press that was
 * recorded.
 */
export function lookAtFraming(
  project: Project,
  sources: Sources,
  framing: Framing,
  taste: Taste,
): FramingLook {
  const footage = footageOf(sources, framing.footageId);
  const rest = { start: framing.start + framing.rampIn, end: framing.end };
  const during = attentionOf(project, sources).filter(
    (a) => a.footageId === framing.footageId && contains(rest, a.start),
  );
  const seen = during.filter((a) => shows(framing, a.rect));
  const missed = during.filter((a) => !shows(framing, a.rect));
  if (!footage || !during.some(({ gain }) => gain)) return { seen, missed, others: [] };
  const area = areaOf(project, footage);
  const whole = wholeView(area, project.canvas);
  const limits = framingLimits(framing, limitsAlong(project, sources));
  const limit =
    typeof taste.limit === 'number'
      ? taste.limit
      : ((taste.limit === 'rebuilt' ? limits?.crisp : limits?.limit) ??
        sharpLimit(area, project.canvas));
  const closest = during.map(() => limit);
  const insets = during.map(({ start }) => insetAt(project, sources, start));
  const pages = during.map(({ start }) => pageAt(project, sources, footage.id, start));
  const costOf = (view: InFootage): number => {
    const cuts = pages.map((page) => (page ? edgesOf(page).cutsOf(view) : 0));
    let cost = totalOf(costOfCuts(cuts[0]!));
    for (const [i, one] of during.entries())
      cost += totalOf(costOfSeeing(one, view, whole, limit, insets[i]!, { cuts: cuts[i]! }));
    return cost;
  };
  const ranked = candidateViews(during, whole, project.canvas, closest, insets, pages, taste)
    .slice(1)
    .filter(({ rect }) => whole.width / rect.width <= limit * (1 + 1e-9))
    .map(({ rect }) => ({ rect, cost: costOf(rect) }))
    .filter(({ cost }) => cost < Infinity)
    .sort((a, b) => a.cost - b.cost);
  const taken: InFootage[] = [framing.rect];
  for (const { rect } of ranked) {
    if (taken.length > OFFERED) break;
    if (taken.every((other) => likeness(rect, other) < ALIKE)) taken.push(rect);
  }
  const others = taken.slice(1).map((rect) => ({
    rect,
    magnification: whole.width / rect.width,
    seen: during.filter((a) => isWithin(a.rect, rect)).length,
    of: during.length,
  }));
  return { seen, missed, others };
}
