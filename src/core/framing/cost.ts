import { intersect, isWithin, padded, type InFootage, type Rect } from '../scale/rect';
import { ticksToSeconds } from '../time/ticks';
import type { Attention } from './attention';
import { shareCovered } from './inset';
import type { Taste } from './taste';

/*
 * What a plan costs, in small terms that can be named. Their unit is what a press loses by being
 * seen half as large as it could be. Terms in the manner of camera paths that are optimised as a
 * whole (M. Grundmann, V. Kwatra, I. Essa: Auto-directed video stabilization with robust L1 optimal
 * camera paths, 2011): what rests costs nothing, each change costs, and what matters has to stay
 * in view.
 */

/** What costs, each with its own name. */
export type CostTerm =
  /** Something that matters is not in view. */
  | 'outside'
  /** It is in view, but at its very edge. */
  | 'edge'
  /** The presenter stands over it. */
  | 'hidden'
  /** It is seen smaller than it could be. */
  | 'small'
  /** Its text is too small to be read on the smallest screen that it is for. */
  | 'unread'
  /** Its edges go through text lines and panels. */
  | 'cut'
  /** A view moves. */
  | 'move'
  /** It moves far. */
  | 'distance'
  /** A move begins late or ends early, for lack of time. */
  | 'hurry'
  /** A view rests for a short time only. */
  | 'short'
  /** The view is close while nothing happens. */
  | 'idle';

/** Costs by their names; what costs nothing may be left out. */
export type Costs = { readonly [T in CostTerm]?: number };

export const COST_TERMS: readonly CostTerm[] = [
  ...(['outside', 'edge', 'hidden', 'small', 'unread', 'cut', 'move'] as const),
  ...(['distance', 'hurry', 'short', 'idle'] as const),
];

/** The sum of all terms. */
export function totalOf(costs: Costs): number {
  // Plans ask for it millions of times: a walk over the names took a tenth of their time.
  const { outside = 0, edge = 0, hidden = 0, small = 0, unread = 0, cut = 0 } = costs;
  const { move = 0, distance = 0, hurry = 0, short = 0, idle = 0 } = costs;
  return outside + edge + hidden + small + unread + cut + move + distance + hurry + short + idle;
}

/** Two costs, term by term. */
export const addCosts = (a: Costs, b: Costs): Costs =>
  Object.fromEntries(COST_TERMS.map((term) => [term, (a[term] ?? 0) + (b[term] ?? 0)]));

const SMALL = 2;
const EDGE = 1.5;
/** What is nearer to an edge than this share of the view is at its edge. */
const EDGE_SHARE = 0.1;
/** Of what it costs to be out of view. */
const HIDDEN = 0.3;
const SHORT = 0.6;
/** A view that rests this long, in seconds, costs nothing for being short. */
const COMFORT = 3.5;
/** For each text line at the edges of a view that comes to rest, and at most. */
const CUT = 0.16;
const MOST_CUT = 1.6;
/** Of what is seen at half the size that can be read. */
const UNREAD = 1.2;
/** Of what is seen in a view whose edges cut very much; half of that at so many lines. */
const CUT_MEANWHILE = 0.35;
const MANY = 5;
const HURRY = 0.8;
const DISTANCE = 0.35;
/** Of each second in which nothing happens, at twice the size. */
const IDLE = 0.22;
const IDLE_BETWEEN = 0.5;
/** A point that matters is looked at with so many footage pixels around it. */
const AROUND = 8;

/** The share of a rectangle that lies in another, 0 to 1. */
function shareWithin(rect: InFootage, view: InFootage): number {
  const shared = intersect(rect, view);
  return (shared.width * shared.height) / (rect.width * rect.height);
}

/** A view without its outermost shares, save where it ends with the recording itself. */
function inner(view: InFootage, whole: InFootage): InFootage {
  const across = view.width * EDGE_SHARE;
  const down = view.height * EDGE_SHARE;
  const right = view.x + view.width;
  const bottom = view.y + view.height;
  const x = view.x - whole.x < 1 ? whole.x - AROUND : view.x + across;
  const y = view.y - whole.y < 1 ? whole.y - AROUND : view.y + down;
  const endX = whole.x + whole.width - right < 1 ? right + AROUND : right - across;
  const endY = whole.y + whole.height - bottom < 1 ? bottom + AROUND : bottom - down;
  return { x, y, width: endX - x, height: endY - y };
}

/** What becomes of the text of a page in a view. */
export interface Reading {
  /** How many text lines its edges go through. */
  readonly cuts?: number;
  /** By how many halvings its letters are smaller than can be read; 0 where they can. */
  readonly tiny?: number;
}

/**
 * What it costs to see something in a view; infinite where it must be seen and is not.
 *
 * @param closest the largest magnification that it could be seen at
 * @param whole the view of the whole recording, against whose own edges nothing is said
 * @param inset what the presenter covers of the view, as shares of it
 * @param reading what becomes of text meanwhile
 */
export function costOfSeeing(
  { rect, gain, weight, must }: Attention,
  view: InFootage,
  whole: InFootage,
  closest: number,
  inset: Rect | null,
  { cuts = 0, tiny = 0 }: Reading = {},
): Costs {
  if (must && !isWithin(rect, view)) return { outside: Infinity };
  const looked = padded(rect, AROUND);
  const outside = weight * (1 - shareWithin(intersect(looked, whole), view));
  const atEdge = 1 - shareWithin(looked, inner(view, whole));
  const magnified = whole.width / view.width;
  return {
    outside,
    edge: must ? EDGE * atEdge : EDGE * atEdge * Math.min(1, weight / 8),
    hidden: inset ? HIDDEN * weight * shareCovered(looked, view, inset) : 0,
    small: SMALL * gain * Math.max(0, Math.log2(closest / magnified)),
    unread: UNREAD * gain * tiny,
    cut: CUT_MEANWHILE * gain * (cuts / (cuts + MANY)),
  };
}

/** What a move costs by its perceived length and by how much of its time it lacks, 0 to 1. */
export const costOfMove = (distance: number, lacking: number, { lively }: Taste): Costs => ({
  move: 1.05 - 0.9 * lively,
  distance: DISTANCE * distance,
  hurry: HURRY * lacking,
});

/** What it costs to come to a view whose edges cut so many text lines. */
export const costOfCuts = (cuts: number): Costs => ({ cut: Math.min(MOST_CUT, CUT * cuts) });

/** What it costs (`short`) that a view rests for some ticks only. */
export const costOfShortness = (ticks: number): number =>
  SHORT * Math.max(0, 1 - ticksToSeconds(ticks) / COMFORT);

/** What it costs to stay in a view while nothing happens for some ticks. */
export const costOfIdling = (
  ticks: number,
  view: InFootage,
  whole: InFootage,
  { between }: Taste,
): Costs => ({
  idle:
    (between ? IDLE_BETWEEN : IDLE) * ticksToSeconds(ticks) * Math.log2(whole.width / view.width),
});
