import { apartAt } from './cut';
import type { Sighting } from './sightings';

/** Sightings that look alike, and how each lies on the first. */
export interface Kin {
  readonly first: Sighting;
  readonly mass: Mass;
  readonly members: { readonly sighting: Sighting; readonly dx: number; readonly dy: number }[];
}

/** Mean difference up to which two sightings show the same, in code values. */
const ALIKE = 12;
/** The share of both outlines that has to be common to them. */
const COMMON = 0.5;
/** The middles of two outlines of one thing may lie so many pixels apart. */
const REACH = 3;
/** A match as good as this needs no better. */
const GOOD = 0.7;
/** A kin needs no more members than this. */
const ENOUGH = 24;
/** Places nearer to each other than this are one. */
const PLACE = 10;
const LEAST_SPAN = 60;
/** Places as far from each other as this are wide apart. */
const WIDE = 20;
const MOST_KINS = 60;
const RARE = 3;

interface Match {
  readonly dx: number;
  readonly dy: number;
  readonly quality: number;
}

/** An outline's samples by their places in its cut-out, and their middle. */
interface Mass {
  readonly across: Int16Array;
  readonly down: Int16Array;
  readonly x: number;
  readonly y: number;
  readonly count: number;
}

function massOf({ mask, width }: Sighting): Mass {
  const places: number[] = [];
  mask.forEach((on, at) => on && places.push(at));
  const across = Int16Array.from(places, (at) => at % width);
  const down = Int16Array.from(places, (at) => Math.floor(at / width));
  const mean = (all: Int16Array) => all.reduce((sum, one) => sum + one, 0) / all.length;
  return { across, down, x: mean(across), y: mean(down), count: places.length };
}

/**
 * How well two sightings match when one is shifted on the other; null where they do not, or no better
 * than another match. Which samples they have in common is looked at first, since few shifts get
 * further.
 */
function matchAt(
  a: Sighting,
  b: Sighting,
  of: Mass,
  other: Mass,
  dx: number,
  dy: number,
  best: Match | null,
): Match | null {
  const { across, down, count } = of;
  let both = 0;
  for (let n = 0; n < count; n++) {
    const [u, v] = [across[n]! + dx, down[n]! + dy];
    if (u >= 0 && v >= 0 && u < b.width && v < b.height) both += b.mask[v * b.width + u]!;
  }
  const common = both / Math.max(1, count + other.count - both);
  if (common < COMMON || (best && common <= best.quality)) return null;
  const most = ALIKE * both;
  let apart = 0;
  for (let n = 0; n < count && apart <= most; n++) {
    const [u, v] = [across[n]! + dx, down[n]! + dy];
    if (u < 0 || v < 0 || u >= b.width || v >= b.height || !b.mask[v * b.width + u]) continue;
    apart += apartAt(a, down[n]! * a.width + across[n]!, b, v * b.width + u);
  }
  const quality = common - apart / Math.max(1, both) / 40;
  return apart > most || (best && quality <= best.quality) ? null : { dx, dy, quality };
}

function match(a: Sighting, b: Sighting, of: Mass, other: Mass): Match | null {
  if (Math.min(of.count, other.count) < COMMON * Math.max(of.count, other.count)) return null;
  const [x, y] = [Math.round(other.x - of.x), Math.round(other.y - of.y)];
  let best: Match | null = null;
  for (let dy = y - REACH; dy <= y + REACH; dy++)
    for (let dx = x - REACH; dx <= x + REACH; dx++) {
      best = matchAt(a, b, of, other, dx, dy, best) ?? best;
    }
  return best;
}

const apart = (a: Sighting, b: Sighting): number =>
  Math.max(Math.abs(a.x - b.x), Math.abs(a.y - b.y));

/** Sightings that lie far from each other, as many as there are. */
function placesOf(members: Kin['members']): Sighting[] {
  const places: Sighting[] = [];
  for (const { sighting } of members)
    if (places.every((other) => apart(other, sighting) >= WIDE)) places.push(sighting);
  return places;
}

/** Puts sightings together that show the same thing, as they come. */
export class Gathering {
  private readonly kins: Kin[] = [];

  /**
   * Puts a sighting to what it looks like.
   *
   * @returns false where that was seen there already, or often enough
   */
  add(sighting: Sighting): boolean {
    const mass = massOf(sighting);
    let best: { kin: Kin; match: Match } | null = null;
    for (const kin of this.kins) {
      const found = match(kin.first, sighting, kin.mass, mass);
      if (found && (!best || found.quality > best.match.quality)) best = { kin, match: found };
      if (best && best.match.quality > GOOD) break;
    }
    if (!best) {
      if (this.kins.length >= MOST_KINS) {
        // What was hardly seen makes room for what may be seen again; what was seen often stays.
        const rare = this.kins.findIndex(({ members }) => members.length < RARE);
        if (rare < 0) return false;
        this.kins.splice(rare, 1);
      }
      this.kins.push({ first: sighting, mass, members: [{ sighting, dx: 0, dy: 0 }] });
      return true;
    }
    const { members } = best.kin;
    if (members.length >= ENOUGH) return false;
    if (members.some((one) => apart(one.sighting, sighting) < PLACE)) return false;
    members.push({ sighting, dx: best.match.dx, dy: best.match.dy });
    return true;
  }

  /**
   * What was seen at enough places, far enough from each other, to be believed: what was seen most
   * often first.
   *
   * @param members so many sightings are enough
   * @param places of which so many are wide apart
   * @param counts whether a sighting counts, by what is known of its place by now
   */
  believed(
    members: number,
    places: number,
    counts: (sighting: Sighting) => boolean = () => true,
  ): readonly Kin[] {
    const isBelieved = (kin: Kin) => {
      const counted = kin.members.filter(({ sighting }) => counts(sighting));
      const far = Math.max(0, ...counted.map((one) => apart(one.sighting, counted[0]!.sighting)));
      return counted.length >= members && placesOf(counted).length >= places && far >= LEAST_SPAN;
    };
    return this.kins.filter(isBelieved).sort((a, b) => b.members.length - a.members.length);
  }
}
