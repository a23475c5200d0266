/** A place where a look of the pointer fits into a picture. */
export interface Candidate {
  /** Which look, by its number. */
  readonly look: number;
  /** The look's corner, in the picture's pixels. */
  readonly x: number;
  readonly y: number;
  /** How badly it fits: 0 exactly, 1 not at all. */
  readonly misfit: number;
  /** The same place in the picture before, if it fitted as well there: nothing came to it. */
  readonly again?: Candidate;
}

/** What one picture has to say of where the pointer is. */
export interface Picture {
  /** When it is seen, in milliseconds of its recording. */
  readonly ms: number;
  /** The places where it may be; a place where nothing changed is the same object as before. */
  readonly candidates: readonly Candidate[];
}

/** A picture's place on the path: one of its candidates, or null where the pointer is hidden. */
export interface Found {
  readonly at: Candidate | null;
  /** How sure it is that the pointer is there, or that it is hidden, 0 to 1. */
  readonly confidence: number;
}

/*
 * The costs of a path. Right places misfit by some 0.1 in what codecs leave, wrong ones by 0.3 and
 * more: hiding has to cost about as much as a misfit between both.
 */
const MISFIT = 10;
const HIDDEN = 2.9;
/** Of both, in a picture in which nothing changed: it tells nothing that was not known. */
const STILL = 0.1;
/** What comes to a place and fits better than this is hardly anything but the pointer. */
const EXPLAINED = 0.2;
const VANISHING = 2;
/** For leaving a place, or coming to one, that did not change meanwhile. */
const UNSEEN = 4;
const MOVING = 0.3;
/** Moves cost more with their length, in pixels, up to a bound. */
const FAR = 500;
const FARTHEST = 3;
const OTHER_LOOK = 0.8;

/** What it costs to be at one place in one picture and at another in the next. */
function costOfStep(
  from: Candidate | null,
  to: Candidate | null,
  stayed: ReadonlySet<Candidate>,
): number {
  if (from === to || (from && from === to?.again)) return 0;
  const unseen = (from && stayed.has(from) ? UNSEEN : 0) + (to && stayed.has(to) ? UNSEEN : 0);
  if (!from || !to) return VANISHING + unseen;
  const distance = Math.hypot(from.x - to.x, from.y - to.y);
  const far = Math.min(FARTHEST, distance / FAR);
  return MOVING + far + (from.look === to.look ? 0 : OTHER_LOOK) + unseen;
}

/** Where the pointer may be in a picture, and for each place, which before leads there cheapest. */
interface Choice {
  readonly states: readonly (Candidate | null)[];
  readonly from: Uint8Array;
}

interface Step extends Choice {
  readonly candidates: readonly Candidate[];
  /** What the cheapest path to each of the places costs. */
  readonly cost: Float64Array;
}

function firstStep({ candidates }: Picture): Step {
  const states = [...candidates, null];
  const cost = Float64Array.from(states, (at) => (at ? at.misfit * MISFIT : HIDDEN));
  return { candidates, states, cost, from: new Uint8Array(states.length) };
}

function nextStep(before: Step, { candidates }: Picture): Step {
  // Of an hour in which little happens, few lists have to be kept.
  const states = before.candidates === candidates ? before.states : [...candidates, null];
  const earlier = new Set(before.states);
  const still = candidates.filter((at) => earlier.has(at) || (at.again && earlier.has(at.again)));
  const stayed = new Set(still.flatMap((at) => (at.again ? [at, at.again] : [at])));
  const weight = still.length === candidates.length ? STILL : 1;
  const arrived = Math.min(...candidates.map((at) => (stayed.has(at) ? 1 : at.misfit)));
  const unexplained = MISFIT * Math.max(0, EXPLAINED - arrived);
  const cost = new Float64Array(states.length);
  const from = new Uint8Array(states.length);
  for (const [i, to] of states.entries()) {
    let best = Infinity;
    for (const [k, state] of before.states.entries()) {
      const sum = before.cost[k]! + costOfStep(state, to, stayed);
      if (sum >= best) continue;
      best = sum;
      from[i] = k;
    }
    const elsewhere = to && !stayed.has(to) ? 0 : unexplained;
    cost[i] = best + weight * (to ? to.misfit * MISFIT : HIDDEN) + elsewhere;
  }
  return { candidates, states, cost, from };
}

/** How sure a choice is among what there was to choose from, 0 to 1. */
function confidenceOf(at: Candidate | null, candidates: readonly Candidate[]): number {
  const limit = HIDDEN / MISFIT;
  const bounded = (share: number) => Math.min(1, Math.max(0, share));
  const others = candidates.filter(
    (other) => other !== at && (!at || Math.hypot(other.x - at.x, other.y - at.y) > 8),
  );
  const next = Math.min(limit, ...others.map(({ misfit }) => misfit));
  if (!at) return bounded(0.5 + ((next - 0.1) / limit) * 0.5);
  const fit = bounded((limit * 1.3 - at.misfit) / limit);
  return Math.min(fit, bounded(0.35 + (next - at.misfit) / (limit / 2)));
}

/**
 * Where the pointer was in each picture: the path over the candidates of all pictures that costs
 * least in all, by dynamic programming (A. Viterbi, 1967). The pointer may be hidden. Staying costs
 * nothing, moving a little, and leaving or coming to a place that did not change most.
 */
export class PointerPath {
  private readonly pictures: Picture[] = [];
  private readonly choices: Choice[] = [];
  private last: Step | null = null;

  /** Takes the next picture; answers where the pointer is in it, as far as the past tells. */
  add(picture: Picture): Candidate | null {
    const step = this.last ? nextStep(this.last, picture) : firstStep(picture);
    const { states, from } = step;
    this.last = step;
    this.choices.push({ states, from });
    this.pictures.push(picture);
    return step.states[cheapest(step)]!;
  }

  /** The path over all pictures that were taken. */
  whole(): Found[] {
    const { choices, pictures, last } = this;
    const found: Found[] = [];
    let state = last ? cheapest(last) : 0;
    for (let i = choices.length - 1; i >= 0; i--) {
      const { states, from } = choices[i]!;
      const at = states[state]!;
      found.push({ at, confidence: confidenceOf(at, pictures[i]!.candidates) });
      state = from[state]!;
    }
    return found.reverse();
  }
}

const cheapest = ({ cost }: Step): number => cost.indexOf(Math.min(...cost));

/** Where the pointer was in each of some pictures. */
export function pathOf(pictures: readonly Picture[]): Found[] {
  const path = new PointerPath();
  for (const picture of pictures) path.add(picture);
  return path.whole();
}
