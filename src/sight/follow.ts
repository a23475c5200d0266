import { intersect, padded, type Rect } from '@/core/scale/rect';
import type { Point } from '@/core/schema/parts';
import { appearanceIn, whatIsTold, type Appearance } from '@/core/vision/follow/appearance';
import { worstPart } from '@/core/vision/follow/itself';
import { likenessAt, type Likeness } from '@/core/vision/follow/likeness';
import { refined } from '@/core/vision/follow/refine';
import { searchPoints } from '@/core/vision/follow/search-points';
import { AROUND, Surroundings, within } from '@/core/vision/follow/surroundings';
import { LEAST_CHANGE, tilesOf, type Luma } from '@/core/vision/luma';
import type { Pictures } from './pictures';
import { ResizedContent } from './resized';
import { LookSearch } from './search';

/** Where followed content lies in a picture: its upper left corner, and how large it is. */
export interface FollowedPlace extends Point {
  /** Times as large as where it was marked. */
  readonly scale: number;
  /** Whether it is seen there; else it may be, as where something lies over it. */
  readonly sure: boolean;
}

/** A run of pictures in which content may be seen, from one to the next by their numbers. */
export interface FollowedRun {
  readonly from: number;
  /** The first picture after it. */
  to: number;
  /** Where it is from a picture on. */
  readonly places: { readonly from: number; readonly place: FollowedPlace }[];
}

/** A tile with this many changed samples has changed. */
const FEWEST = 2;
/** Pictures that are kept to see since when content that is found again was there. */
export const KEPT = 12;
/** Content stays where it is with this likeness, or this share of it in sight. */
const STAYS = { mean: 0.6, seen: 0.5 };
/**
 * It is somewhere else, without anything that vouches for it, with these: two addresses of one house
 * are the same but for a few letters.
 */
const ALONE = { mean: 0.75, seen: 0.92 };
/** The worst letter of content is seen so well at least, less this, and never less than that. */
const USUALLY = 0.92;
const SLACK = 0.04;
const LEAST_ITSELF = 0.55;
/** So many pictures tell how well it is seen when it moves. */
const LATELY = 12;
/** Of two places, one that is liker by this is it. */
const LIKER = 0.01;
/** Surroundings that went along vouch for content of which only this share is seen. */
const VOUCHED = 0.15;
const ALONG = 0.5;
/** No other place is asked for with these. */
const CLEAR = { mean: 0.8, along: 0.7 };
/** Content that fades, or lies behind something, is still told by this. */
const FADES = { mean: 0.5, seen: 0.2 };
/** Pages that are magnified change by this share at least. */
const ANEW = 0.12;
/** Pages are magnified at once: before that so many pictures changed little. */
const CALM = 4;
/** A place that shows something else and stands still for so many pictures has lost the content. */
const STILL = 10;

/** A place at which it may be, and by which of its looks. */
interface Found extends Point {
  readonly likeness: Likeness;
  readonly score: number;
  readonly look: number;
  /** Whether it is the content itself, and not another like it. */
  readonly certain: boolean;
}

interface Look {
  readonly appearance: Appearance;
  /** From the content's corner to that of what it is told by. */
  readonly shift: Point;
  readonly scale: number;
  readonly search: LookSearch | null;
}

/**
 * Follows what a rectangle of a picture shows through the pictures after it, as it is scrolled,
 * dragged, magnified, hidden and shown again. Each new place is held against what it looked like
 * where it was marked, so that nothing drifts.
 */
export class ContentFollower {
  readonly runs: FollowedRun[] = [];
  /** The whole pixels that are told by. */
  readonly told: Rect;
  private readonly looks: Look[] = [];
  private readonly resized: ResizedContent;
  /** Of what it is told by now. */
  private place: FollowedPlace;
  private look = 0;
  private run: FollowedRun | null = null;
  private velocity: Point = { x: 0, y: 0 };
  private still = 0;
  private calm = 0;
  /** Whether what is followed is the content itself, and not another like it. */
  private certain = true;
  /** How well its worst letter was seen of late, where it went along with all around it. */
  private readonly lately: number[] = [];
  private index = 0;

  /**
   * @param pictures whose newest one shows the content
   * @param rect in their pixels
   */
  constructor(
    private readonly pictures: Pictures,
    rect: Rect,
  ) {
    const picture = pictures.luma(0);
    this.told = whatIsTold(rect, picture);
    const appearance = appearanceIn(picture, this.told);
    this.resized = new ResizedContent(picture, this.told);
    const { x, y } = this.told;
    this.place = { x, y, scale: 1, sure: true };
    if (!appearance.blocks.length) return;
    this.addLook(appearance, 1);
    this.see(this.place);
  }

  /** Whether the rectangle shows anything that can be told again. */
  get canFollow(): boolean {
    return this.looks.length > 0;
  }

  /** Looks at the next picture, which is the newest. */
  next(): void {
    this.index++;
    const changed = this.pictures.changedSince(1, LEAST_CHANGE, FEWEST);
    const { across, down } = tilesOf(this.pictures.size);
    const anew = changed.length >= ANEW * across * down;
    if (this.run) this.follow(changed, this.run);
    else if (changed.length) this.findAgain(changed);
    // A page that is magnified while the content is out of sight brings it back at another size.
    if (!this.run && anew && this.calm >= CALM) this.resizedIn(changed);
    this.calm = anew ? 0 : this.calm + 1;
  }

  [Symbol.dispose](): void {
    for (const { search } of this.looks) search?.[Symbol.dispose]();
  }

  private addLook(appearance: Appearance, scale: number, shift: Point = { x: 0, y: 0 }): number {
    const { heap } = this.pictures;
    const points = searchPoints(appearance);
    const search =
      points &&
      new LookSearch(heap, this.pictures, { ...appearance, points }, this.looks.length, SEARCH);
    return this.looks.push({ appearance, scale, shift, search }) - 1;
  }

  private get rect(): Rect {
    const { width, height } = this.looks[this.look]!.appearance;
    return { x: this.place.x, y: this.place.y, width, height };
  }

  /** Notes where it is in this picture; in pictures before it too, if it is found again. */
  private see(place: FollowedPlace, since = this.index): void {
    const { shift } = this.looks[this.look]!;
    const there = { ...place, x: place.x - shift.x, y: place.y - shift.y };
    if (!this.run) {
      this.runs.push((this.run = { from: since, to: since, places: [] }));
      if (since < this.index) note(this.run, since, { ...there, sure: false });
    }
    note(this.run, this.index, there);
    this.place = place;
    this.run.to = this.index + 1;
  }

  private lose(): void {
    this.run = null;
    this.velocity = { x: 0, y: 0 };
    this.still = 0;
  }

  private follow(changed: readonly number[], run: FollowedRun): void {
    const { across } = tilesOf(this.pictures.size);
    const own = within(changed, across, this.rect).length > 0;
    this.still = own ? 0 : this.still + 1;
    if (!own && !within(changed, across, padded(this.rect, AROUND)).length) {
      this.velocity = { x: 0, y: 0 };
      run.to = this.index + 1;
    } else this.track(changed);
    if (!this.place.sure && this.still >= STILL) {
      // What stood still meanwhile is something else.
      run.to = Math.max(run.from + 1, this.index - STILL + 2);
      this.lose();
    }
  }

  /** Finds where it went when something changed there or around. */
  private track(changed: readonly number[]): void {
    if (!this.certain && this.findBetter(changed)) return;
    const [x, y] = [Math.round(this.place.x), Math.round(this.place.y)];
    const here = this.likenessAt({ x, y });
    const about = new Surroundings(this.pictures.luma(1), this.rect);
    const rests = !about.any || about.movedBy(this.picture, 0, 0) >= ALONG;
    const stays = here.mean >= STAYS.mean || here.seen >= STAYS.seen;
    if (stays && rests) return this.stay(here);
    const moved = this.movedTo(changed, about, { x, y, here });
    if (moved && (moved.likeness.seen >= VOUCHED || !rests)) return this.moveTo(moved);
    if (here.seen < FADES.seen && this.calm >= CALM && this.resizedIn(changed)) return;
    if (moved) return this.moveTo(moved);
    this.velocity = { x: 0, y: 0 };
    const fades = here.mean >= FADES.mean || here.seen >= FADES.seen;
    this.see({ ...this.place, sure: fades && this.certain });
  }

  /** The newest picture; to be asked for again after anything that may take memory. */
  private get picture(): Luma {
    return this.pictures.luma(0);
  }

  private likenessAt({ x, y }: Point, look = this.look): Likeness {
    return likenessAt(this.looks[look]!.appearance, this.picture, x, y);
  }

  /** From how well the worst letter is seen on it is the content: codecs and sizes differ. */
  private get itself(): number {
    const least = Math.min(...this.lately, USUALLY) - SLACK;
    return Math.max(LEAST_ITSELF, least);
  }

  /** Learns how well the content is seen in this recording when it moves. */
  private learn({ x, y }: Point): void {
    const { appearance } = this.looks[this.look]!;
    this.lately.push(worstPart(appearance, this.picture, x, y));
    if (this.lately.length > LATELY) this.lately.shift();
  }

  /** Whether a place shows the content itself, and not another like it. */
  private isItself(place: Point, look = this.look): boolean {
    const { appearance } = this.looks[look]!;
    const whole = { x: Math.round(place.x), y: Math.round(place.y) };
    const { x, y } = refined(appearance, this.picture, whole);
    return worstPart(appearance, this.picture, x, y) >= this.itself;
  }

  /** It is where it was; where dark and light changed places, it is told by what it is now. */
  private stay({ inverted, seen }: Likeness): void {
    this.velocity = { x: 0, y: 0 };
    this.certain ||= this.isItself(this.place);
    if (inverted && seen >= STAYS.seen) {
      const { x, y, width, height } = this.rect;
      const now = { x: Math.round(x), y: Math.round(y), width, height };
      const { scale, shift } = this.looks[this.look]!;
      this.look = this.addLook(appearanceIn(this.picture, now), scale, shift);
    }
    this.see({ ...this.place, sure: this.certain });
  }

  /**
   * The place at which this picture shows it best, or to which all around it went; null if there is
   * none. Places that cost little to think of are asked first, and are enough where everything around
   * went along.
   */
  private movedTo(
    changed: readonly number[],
    about: Surroundings,
    { x, y, here }: Point & { readonly here: Likeness },
  ): Found | null {
    let best = null as (Found & { readonly clear: boolean }) | null;
    const rate = (place: Point, least = ALONG, likeness = this.likenessAt(place)) => {
      const [dx, dy] = [place.x - x, place.y - y];
      const along = about.movedBy(this.picture, dx, dy);
      const vouched = along >= least && likeness.seen >= VOUCHED;
      const hidden = along >= CLEAR.along;
      const enough = likeness.mean >= ALONE.mean && likeness.seen >= ALONE.seen;
      if (!enough && !vouched && !hidden) return;
      const far = 0.02 * Math.log2(1 + Math.hypot(dx, dy) / 8);
      const clear = likeness.mean >= CLEAR.mean && along >= CLEAR.along;
      const score = likeness.mean + 0.6 * along - far;
      if (best && score <= best.score) return;
      const certain = (this.certain && (vouched || hidden)) || this.isItself(place);
      best = { ...place, likeness, score, clear, certain, look: this.look };
    };
    const { velocity } = this;
    rate({ x, y }, ALONG, here);
    if (velocity.x || velocity.y)
      rate({ x: x + Math.round(velocity.x), y: y + Math.round(velocity.y) });
    if (best?.clear) return best;
    const near = within(changed, tilesOf(this.pictures.size).across, padded(this.rect, NEAR));
    const { search } = this.looks[this.look]!;
    for (const tiles of near.length < changed.length ? [near, changed] : [changed]) {
      for (const found of search?.find(tiles) ?? [])
        rate({ x: Math.round(found.x), y: Math.round(found.y) }, CLEAR.along);
      if (best?.clear) return best;
    }
    if (!best) for (const { dx, dy } of this.aboutMoved(changed)) rate({ x: x + dx, y: y + dy });
    return best;
  }

  /** How far what lies above and below it may have gone, in whole pixels. */
  private aboutMoved(changed: readonly number[]): { dx: number; dy: number }[] {
    const { heap, size } = this.pictures;
    const { x, y, width, height } = this.rect;
    const wide = { x: x - AROUND, width: width + 2 * AROUND, height: AROUND };
    return [
      { ...wide, y: y - AROUND },
      { ...wide, y: y + height },
    ].flatMap((strip) => {
      const rect = intersect(strip, { x: 0, y: 0, ...size });
      if (rect.width < AROUND || rect.height < AROUND / 3) return [];
      const [left, top] = [Math.round(rect.x), Math.round(rect.y)];
      const told = {
        x: left,
        y: top,
        width: Math.floor(rect.width),
        height: Math.floor(rect.height),
      };
      const appearance = appearanceIn(this.pictures.luma(1), told);
      const points = searchPoints(appearance);
      if (!points) return [];
      using search = new LookSearch(heap, this.pictures, { ...appearance, points }, 0, SEARCH);
      return search
        .find(changed)
        .map((found) => ({ dx: Math.round(found.x) - left, dy: Math.round(found.y) - top }));
    });
  }

  /**
   * Finds it at another size, where much of the picture changed: as one of the looks that it had, or
   * drawn anew.
   */
  private resizedIn(changed: readonly number[]): boolean {
    const { across, down } = tilesOf(this.pictures.size);
    if (changed.length < ANEW * across * down) return false;
    const known = this.known(changed);
    if (known?.certain) {
      this.moveTo(known);
      return true;
    }
    const found = this.resized.findIn(this.pictures, this.place.scale);
    if (!found) return false;
    const { rect, scale } = found;
    const { picture } = this;
    const told = whatIsTold(rect, picture);
    const shift = { x: told.x - rect.x, y: told.y - rect.y };
    this.look = this.addLook(appearanceIn(picture, told), scale, shift);
    this.velocity = { x: 0, y: 0 };
    this.certain = true;
    this.see({ x: told.x, y: told.y, scale, sure: true });
    return true;
  }

  private moveTo({ x, y, look, likeness, certain }: Found): void {
    const before = this.place;
    const seen = likeness.seen >= VOUCHED;
    const { appearance, scale } = this.looks[look]!;
    const there = seen ? refined(appearance, this.picture, { x, y }) : { x, y };
    const { width, height } = appearance;
    if (!touch({ ...there, width, height }, { x: 0, y: 0, ...this.pictures.size }))
      return this.lose();
    this.look = look;
    if (this.certain && certain && likeness.seen === 1) this.learn(there);
    this.certain = certain;
    this.see({ ...there, scale, sure: seen && certain });
    this.velocity = { x: there.x - before.x, y: there.y - before.y };
  }

  /** The best place of any look that it had among what changed. */
  private known(changed: readonly number[]): Found | null {
    let best = null as Found | null;
    this.looks.forEach(({ search }, look) => {
      for (const found of search?.find(changed) ?? []) {
        const place = { x: Math.round(found.x), y: Math.round(found.y) };
        const likeness = this.likenessAt(place, look);
        if (likeness.mean < ALONE.mean || likeness.seen < ALONE.seen) continue;
        if (best && likeness.mean <= best.score) continue;
        const certain = this.isItself(place, look);
        best = { ...place, likeness, look, certain, score: likeness.mean };
      }
    });
    return best;
  }

  /** Goes over from another like it to one that is liker, if there is one among what changed. */
  private findBetter(changed: readonly number[]): boolean {
    const best = this.known(changed);
    if (!best) return false;
    const { x, y } = this.place;
    const here = this.likenessAt({ x: Math.round(x), y: Math.round(y) });
    if (!best.certain && best.likeness.mean < here.mean + LIKER) return false;
    this.moveTo(best);
    return true;
  }

  /** Looks for content that was lost among what changed. */
  private findAgain(changed: readonly number[]): void {
    const best = this.known(changed);
    if (!best) return;
    const { x, y, look, certain } = best;
    const { appearance, scale } = this.looks[look]!;
    const there = refined(appearance, this.picture, { x, y });
    let since = this.index;
    for (let back = 1; back < Math.min(KEPT, this.pictures.count); back++) {
      if (likenessAt(appearance, this.pictures.luma(back), x, y).mean < FADES.mean) break;
      since = this.index - back;
    }
    this.look = look;
    this.velocity = { x: 0, y: 0 };
    this.certain = certain;
    this.see({ ...there, scale, sure: certain }, since);
  }
}

/** Notes where content is from a picture on, if that is anything new. */
function note({ places }: FollowedRun, from: number, place: FollowedPlace): void {
  const last = places[places.length - 1]?.place;
  const { x, y, scale, sure } = place;
  if (last?.x !== x || last.y !== y || last.scale !== scale || last.sure !== sure)
    places.push({ from, place });
}

/** It is looked for so far around first, in pixels. */
const NEAR = 160;
/** Places that are looked at closely. */
const SEARCH = { worst: 0.12, most: 8 };
function touch(a: Rect, b: Rect): boolean {
  const { width, height } = intersect(a, b);
  return width > 0 && height > 0;
}
