import type { InFootage, Rect } from '../scale/rect';
import { secondsToTicks, type Ticks } from '../time/ticks';
import type { Range } from '../time/ranges';
import type { Page } from '../vision/page';
import type { Attention } from './attention';
import type { CandidateView } from './candidates';
import {
  addCosts,
  costOfCuts,
  costOfIdling,
  costOfMove,
  costOfShortness,
  costOfSeeing,
  totalOf,
  type Costs,
} from './cost';
import { edgesOf } from './edge-index';
import { perceivedDistance, rampSeconds, SHORTEST_RAMP } from './ramp';
import { LEAD, TAIL, type Taste } from './taste';

/** What the views of a stretch are chosen for, in order of time. */
export interface Moment extends Range {
  /** Null while nothing happens. */
  readonly attention: Attention | null;
  /** The largest magnification that is allowed then. */
  readonly closest: number;
  /** What the presenter covers of a view then, as shares of it. */
  readonly inset: Rect | null;
  /** What there is to read then; null where it is not known. */
  readonly page: Page | null;
  /** Height of the small letters that are looked at then, in footage pixels; null for no text. */
  readonly letters: number | null;
}

/** What views are planned for. */
export interface Stretch extends Range {
  /** No view rests for less. */
  readonly hold: Ticks;
  /** Letters can be read from this share of the picture's width on. */
  readonly legible: number;
  /** Whether it has to end with the whole view, too. */
  readonly endsWhole: boolean;
}

/** A view at rest. */
export interface Rest {
  readonly view: InFootage;
  /** When the move towards it begins; the same as `start` for the first. */
  readonly from: Ticks;
  /** It rests from here to there. */
  readonly start: Ticks;
  readonly end: Ticks;
  /** The moments that are seen in it. */
  readonly first: number;
  readonly last: number;
  readonly costs: Costs;
}

/** The time that a move takes between what is seen before and after it. */
interface Move {
  readonly leave: Ticks;
  readonly arrive: Ticks;
  readonly distance: number;
  /** How much of its time it lacks, 0 to 1. */
  readonly lacking: number;
}

/** The best way, found so far, of having seen all up to a moment. */
interface State {
  readonly cost: number;
  readonly view: number;
  readonly moment: number;
  /** When the view that it is in came to rest. */
  readonly arrive: Ticks;
  /** The move into that view; null for the first. */
  readonly move: Move | null;
  readonly before: State | null;
}

/** So many ways are kept for each view: a dearer one only where it has rested for longer. */
const KEPT = 3;
/** A move may take this share of the time that it should. */
const QUICKEST = 0.8;
/** Progress is told once for so many moments. */
const TOLD = 64;
/** However little time there is, a view rests for so long before and after what it is for. */
const BREATH = secondsToTicks(0.12);
const LEAD_TICKS = secondsToTicks(LEAD) - BREATH;
const TAIL_TICKS = secondsToTicks(TAIL) - BREATH;

/**
 * A move that fits between two instants: it leaves some time after the first and arrives some time
 * before the second; where there is no time for that it is closer to them. Null where there is no
 * time for it at all.
 */
function moveBetween(after: Ticks, before: Ticks, distance: number): Move | null {
  const ramp = secondsToTicks(rampSeconds(distance));
  const room = before - after - 2 * BREATH;
  const least = Math.max(secondsToTicks(SHORTEST_RAMP), ramp * QUICKEST);
  if (room < least) return null;
  const taken = Math.min(ramp, room);
  const spare = Math.min(1, (room - taken) / (LEAD_TICKS + TAIL_TICKS));
  const arrive = before - BREATH - Math.round(LEAD_TICKS * spare);
  const lacking = Math.min(1, 1 - spare + (ramp - taken) / ramp);
  return { leave: arrive - taken, arrive, distance, lacking };
}

/** Whether one of some ways is as good in all as another of a cost and an arrival. */
function isBeaten(states: readonly State[], cost: number, arrive: Ticks): boolean {
  for (const state of states) if (state.cost <= cost && state.arrive <= arrive) return true;
  return false;
}

/** Adds a way that is not beaten to those that are kept of a view. */
function keep(states: State[], state: State): void {
  const left = states.filter((s) => s.cost < state.cost || s.arrive < state.arrive);
  left.push(state);
  left.sort((a, b) => a.cost - b.cost);
  states.splice(0, states.length, ...left.slice(0, KEPT));
}

/** The instants between which a move can be made before each moment. */
function gapsOf(moments: readonly Moment[], start: Ticks): { after: Ticks; before: Ticks }[] {
  let after = start;
  return moments.map((moment) => {
    const gap = { after, before: moment.start };
    // Where the pointer only rests, a view may move.
    after = Math.max(after, moment.attention && !moment.attention.gain ? moment.start : moment.end);
    return gap;
  });
}

/**
 * The cheapest sequence of resting views in which all moments of a stretch are seen: dynamic
 * programming over candidate views, from moment to moment. A stretch begins with the whole view; no
 * view rests for less than the hold, and each move has its time between two moments.
 *
 * @param candidates the whole view first
 * @param onProgress is told now and then the share that is done, 0 to 1
 */
export function searchViews(
  stretch: Stretch,
  moments: readonly Moment[],
  candidates: readonly CandidateView[],
  taste: Taste,
  onProgress: (share: number) => void,
): Rest[] {
  const whole = candidates[0]!.rect;
  const { hold, endsWhole, legible } = stretch;
  const distances = new Map<number, number>();
  const distance = (a: number, b: number): number => {
    const key = Math.min(a, b) * candidates.length + Math.max(a, b);
    let known = distances.get(key);
    if (known === undefined) {
      known = perceivedDistance(candidates[a]!.rect, candidates[b]!.rect);
      distances.set(key, known);
    }
    return known;
  };
  const known = new Map<Page, Map<number, number>>();
  /** How much the edges of a view cut of what stands on the screen at a moment. */
  const cutsAt = (index: number, view: number): number => {
    const { page } = moments[index]!;
    if (!page || view === 0) return 0;
    const ofPage = known.get(page) ?? new Map<number, number>();
    known.set(page, ofPage);
    const there = ofPage.get(view) ?? edgesOf(page).cutsOf(candidates[view]!.rect);
    ofPage.set(view, there);
    return there;
  };
  /** What that costs when the view is come to. */
  const cutting = (index: number, view: number): Costs => costOfCuts(cutsAt(index, view));
  /** By how many halvings the letters that are looked at are too small in a view. */
  const tinyAt = (index: number, { width }: InFootage): number => {
    const { letters } = moments[index]!;
    return letters === null ? 0 : Math.max(0, Math.log2((legible * width) / letters));
  };
  const costAt = (index: number, view: number): Costs => {
    const { attention, closest, inset, ...range } = moments[index]!;
    const { rect } = candidates[view]!;
    return attention
      ? costOfSeeing(attention, rect, whole, closest, inset, {
          cuts: cutsAt(index, view),
          tiny: tinyAt(index, rect),
        })
      : costOfIdling(range.end - range.start, rect, whole, taste);
  };
  const leastOfMove = totalOf(costOfMove(0, 0, taste));
  const isAllowed = (moment: Moment, view: number) =>
    view === 0 || whole.width / candidates[view]!.rect.width <= moment.closest * (1 + 1e-9);

  const byStart = [...candidates.keys()].sort(
    (a, b) => candidates[a]!.first - candidates[b]!.first,
  );
  let upcoming = 0;
  let active: number[] = [];
  // Before the first moment the whole is seen.
  let states = new Map<number, State[]>([
    [0, [{ cost: 0, view: 0, moment: -1, arrive: stretch.start, move: null, before: null }]],
  ]);
  for (const [index, gap] of gapsOf(moments, stretch.start).entries()) {
    const moment = moments[index]!;
    if (index % TOLD === 0) onProgress(index / moments.length);
    while (upcoming < byStart.length && candidates[byStart[upcoming]!]!.first <= index)
      active.push(byStart[upcoming++]!);
    active = active.filter((view) => candidates[view]!.last >= index);
    const next = new Map<number, State[]>();
    const cheapestFirst = [...states].sort(([, a], [, b]) => a[0]!.cost - b[0]!.cost);
    for (const view of active) {
      if (!isAllowed(moment, view)) continue;
      const cost = totalOf(costAt(index, view));
      if (cost === Infinity) continue;
      const cut = totalOf(cutting(index, view));
      const kept: State[] = [];
      const enter = (before: State, arrive: Ticks, move: Move | null, more: number) => {
        const all = before.cost + more + cost;
        // Most are, so nothing is made of them first.
        if (isBeaten(kept, all, arrive)) return;
        keep(kept, { cost: all, view, moment: index, arrive, move, before });
      };
      for (const before of states.get(view) ?? []) enter(before, before.arrive, before.move, 0);
      // Whoever comes now has rested for less than whoever stays, and must be cheaper. All who come
      // arrive at nearly the same time, so that the cheapest of them is enough.
      let dearest = kept[0]?.cost ?? Infinity;
      for (const [from, ways] of cheapestFirst) {
        if (ways[0]!.cost + cost + cut + leastOfMove >= dearest) break;
        if (from === view) continue;
        const move = moveBetween(gap.after, gap.before, distance(from, view));
        if (!move) continue;
        const moving = totalOf(costOfMove(move.distance, move.lacking, taste));
        for (const before of ways) {
          const rested = move.leave - before.arrive;
          if (rested < hold) continue;
          const more = moving + cut + costOfShortness(rested);
          enter(before, move.arrive, move, more);
          dearest = Math.min(dearest, before.cost + more + cost);
        }
      }
      if (kept.length) next.set(view, kept);
    }
    states = next;
  }
  const ends = [...states.values()]
    .flat()
    .filter(({ arrive, view }) => stretch.end - arrive >= hold && (!endsWhole || view === 0));
  const inAll = ({ cost, arrive }: State) => cost + costOfShortness(stretch.end - arrive);
  const last = ends.reduce<State | null>((a, b) => (a && inAll(a) <= inAll(b) ? a : b), null);
  return last ? restsOf(last, stretch, candidates, taste, costAt, cutting) : [];
}

/** The resting views along the way that ends in a state. */
function restsOf(
  last: State,
  stretch: Range,
  candidates: readonly CandidateView[],
  taste: Taste,
  costAt: (index: number, view: number) => Costs,
  cutting: (index: number, view: number) => Costs,
): Rest[] {
  const rests: Rest[] = [];
  let end = stretch.end;
  let state: State | null = last;
  while (state) {
    const { view, arrive, move } = state;
    const rect = candidates[view]!.rect;
    const lastMoment = state.moment;
    let costs: Costs = { short: costOfShortness(end - arrive) };
    if (move) costs = addCosts(costs, costOfMove(move.distance, move.lacking, taste));
    let first = lastMoment + 1;
    while (state && state.view === view && state.arrive === arrive && state.moment >= 0) {
      first = state.moment;
      costs = addCosts(costs, costAt(first, view));
      state = state.before;
    }
    // The state in which nothing was seen yet belongs to the first view.
    if (state && state.moment < 0 && state.view === view && state.arrive === arrive) state = null;
    if (move) costs = addCosts(costs, cutting(first, view));
    const from = move?.leave ?? arrive;
    rests.unshift({ view: rect, from, start: arrive, end, first, last: lastMoment, costs });
    end = from;
  }
  return rests;
}
