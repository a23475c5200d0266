import { meet, padded, type Rect } from '@/core/scale/rect';
import type { Point } from '@/core/schema/parts';
import { appearanceIn, whatIsTold } from '@/core/vision/follow/appearance';
import { likenessAt, type Likeness } from '@/core/vision/follow/likeness';
import { AROUND, Surroundings, within } from '@/core/vision/follow/surroundings';
import { LEAST_CHANGE, tilesOf, type Luma } from '@/core/vision/luma';
import { ContentLooks, isEnough, wholePixels, type FoundContent } from './content-looks';
import { FEWEST, type Pictures } from './pictures';
import { ResizedContent } from './resized';
import { Strips, wentAlong } from './strips';

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

/** Pictures that are kept to see since when content that is found again was there. */
export const KEPT = 12;
/** Content stays where it is with this likeness, or this share of it in sight. */
const STAYS = { mean: 0.6, seen: 0.5 };
/** Of two places, one that is liker by this is it. */
const LIKER = 0.01;
const isThere = ({ mean, seen }: Likeness): boolean => mean >= STAYS.mean || seen >= STAYS.seen;
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
/** What goes further from one picture to the next, in pixels, than it was about to, leaps. */
const LEAP = 24;
/** It is looked for so far around first, in pixels. */
const NEAR = 160;

/**
 * Follows what a rectangle of a picture shows through the pictures after it, as it is scrolled,
 * dragged, magnified, hidden and shown again. Each new place is held against what it looked like
 * where it was marked, so that nothing drifts.
 */
export class ContentFollower {
  readonly runs: FollowedRun[] = [];
  /** The whole pixels that are told by. */
  readonly told: Rect;
  private readonly looks: ContentLooks;
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
    this.looks = new ContentLooks(pictures);
    this.told = whatIsTold(rect, picture);
    const appearance = appearanceIn(picture, this.told);
    this.resized = new ResizedContent(picture, this.told);
    const { x, y } = this.told;
    this.place = { x, y, scale: 1, sure: true };
    if (!appearance.blocks.length) return;
    this.looks.add(appearance);
    this.see(this.place);
  }

  /** Whether the rectangle shows anything that can be told again. */
  get canFollow(): boolean {
    return this.looks.count > 0;
  }

  /** Looks at the next picture, which is the newest. */
  next(): void {
    this.index++;
    const changed = this.pictures.changedSince(1, LEAST_CHANGE, FEWEST);
    const { across, down } = tilesOf(this.pictures.size);
    const anew = changed.length >= ANEW * across * down;
    if (this.run) this.follow(changed, this.run, anew);
    else if (changed.length) this.findAgain(changed);
    // A page that is magnified while the content is out of sight brings it back at another size.
    if (!this.run && anew && this.calm >= CALM) this.resizedIn(changed);
    this.calm = anew ? 0 : this.calm + 1;
  }

  [Symbol.dispose](): void {
    this.looks[Symbol.dispose]();
  }

  private get rect(): Rect {
    const { width, height } = this.looks.at(this.look).appearance;
    return { x: this.place.x, y: this.place.y, width, height };
  }

  /** Whether its place shows most of it: something may lie over the rest. */
  private get mayBe(): boolean {
    return isThere(this.looks.likenessAt(wholePixels(this.place), this.look));
  }

  /** The newest picture; to be asked for again after anything that may take memory. */
  private get picture(): Luma {
    return this.pictures.luma(0);
  }

  /** Notes where it is in this picture; in pictures before it too, if it is found again. */
  private see(place: FollowedPlace, since = this.index): void {
    const { shift } = this.looks.at(this.look);
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
    this.rest();
    this.still = 0;
  }

  private rest(): void {
    this.velocity = { x: 0, y: 0 };
  }

  private follow(changed: readonly number[], run: FollowedRun, anew: boolean): void {
    const { across } = tilesOf(this.pictures.size);
    const own = within(changed, across, this.rect).length > 0;
    this.still = own ? 0 : this.still + 1;
    if (!own && !within(changed, across, padded(this.rect, AROUND)).length) {
      this.rest();
      run.to = this.index + 1;
    } else this.track(changed, anew && this.calm >= CALM);
    if (!this.place.sure && this.still >= STILL && !this.mayBe) {
      // What stood still meanwhile is something else.
      run.to = Math.max(run.from + 1, this.index - STILL + 2);
      this.lose();
    }
  }

  /**
   * Finds where it went when something changed there or around.
   *
   * @param atOnce whether much of the picture changed after a rest, as by a page that is magnified
   */
  private track(changed: readonly number[], atOnce: boolean): void {
    if (!this.certain && this.findBetter(changed)) return;
    const at = wholePixels(this.place);
    const here = this.looks.likenessAt(at, this.look);
    const about = new Surroundings(this.pictures.luma(1), this.rect);
    const rests = !about.any || about.movedBy(this.picture, 0, 0) >= ALONG;
    if (isThere(here) && rests) return this.stay(here);
    const moved = this.movedTo(changed, about, at, here);
    if (moved && (moved.likeness.seen >= VOUCHED || !rests)) return this.moveTo(moved);
    if (atOnce && here.seen < FADES.seen && this.resizedIn(changed)) return;
    if (moved) return this.moveTo(moved);
    this.rest();
    const fades = here.mean >= FADES.mean || here.seen >= FADES.seen;
    this.see({ ...this.place, sure: fades && this.certain });
  }

  /** It is where it was; where dark and light changed places, it is told by what it is now. */
  private stay({ inverted, seen }: Likeness): void {
    this.rest();
    this.certain ||= this.looks.isItself(this.place, this.look);
    if (inverted && seen >= STAYS.seen) {
      const now = { ...this.rect, ...wholePixels(this.rect) };
      const { scale, shift } = this.looks.at(this.look);
      this.look = this.looks.add(appearanceIn(this.picture, now), scale, shift);
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
    at: Point,
    here: Likeness,
  ): FoundContent | null {
    const { looks, look, velocity } = this;
    let best = null as (FoundContent & { readonly clear: boolean }) | null;
    const rate = (place: Point, least = ALONG, likeness = looks.likenessAt(place, look)) => {
      const [dx, dy] = [place.x - at.x, place.y - at.y];
      const along = about.movedBy(this.picture, dx, dy);
      const vouched = along >= CLEAR.along || (along >= least && likeness.seen >= VOUCHED);
      if (!isEnough(likeness) && !vouched) return;
      const far = 0.02 * Math.log2(1 + Math.hypot(dx, dy) / 8);
      const clear = likeness.mean >= CLEAR.mean && along >= CLEAR.along;
      const score = likeness.mean + 0.6 * along - far;
      if (best && score <= best.score) return;
      const leaps = Math.hypot(dx - velocity.x, dy - velocity.y) > LEAP;
      const doubted = leaps && looks.maybeAnother(place, look);
      const certain = (this.certain && vouched && !doubted) || looks.isItself(place, look);
      best = { ...place, likeness, score, clear, certain, look };
    };
    const isClear = () => best?.clear ?? false;
    rate(at, ALONG, here);
    if (velocity.x || velocity.y) rate(wholePixels({ x: at.x + velocity.x, y: at.y + velocity.y }));
    if (isClear()) return best;
    const near = within(changed, tilesOf(this.pictures.size).across, padded(this.rect, NEAR));
    const { search } = looks.at(look);
    for (const tiles of near.length < changed.length ? [near, changed] : [changed]) {
      for (const found of search?.find(tiles) ?? []) rate(wholePixels(found), CLEAR.along);
      if (isClear()) return best;
    }
    if (best) return best;
    const strips = new Strips(this.pictures, this.rect);
    for (const anywhere of [false, true]) {
      for (const { dx, dy } of strips.went(changed, anywhere)) rate({ x: at.x + dx, y: at.y + dy });
      if (best) break;
    }
    return best;
  }

  /** Finds it at another size: as one of the looks that it had, or drawn anew. */
  private resizedIn(changed: readonly number[]): boolean {
    const known = this.looks.find(changed);
    if (known?.certain) {
      this.moveTo(known);
      return true;
    }
    // Looking through all sizes takes as long as twenty pictures.
    if (wentAlong(this.pictures, changed)) return false;
    const found = this.resized.findIn(this.pictures, this.place.scale);
    if (!found) return false;
    const { rect, scale } = found;
    const { picture } = this;
    const told = whatIsTold(rect, picture);
    const shift = { x: told.x - rect.x, y: told.y - rect.y };
    this.look = this.looks.add(appearanceIn(picture, told), scale, shift);
    this.rest();
    this.certain = true;
    this.see({ x: told.x, y: told.y, scale, sure: true });
    return true;
  }

  private moveTo({ x, y, look, likeness, certain }: FoundContent): void {
    const before = this.place;
    const seen = likeness.seen >= VOUCHED;
    const { appearance, scale } = this.looks.at(look);
    const there = seen ? this.looks.refined({ x, y }, look) : { x, y };
    const { width, height } = appearance;
    if (!meet({ ...there, width, height }, { x: 0, y: 0, ...this.pictures.size }))
      return this.lose();
    this.look = look;
    if (this.certain && certain && likeness.seen === 1) this.looks.learn(there, look);
    this.certain = certain;
    this.see({ ...there, scale, sure: seen && certain });
    this.velocity = { x: there.x - before.x, y: there.y - before.y };
  }

  /** Goes over from another like it to one that is liker, if there is one among what changed. */
  private findBetter(changed: readonly number[]): boolean {
    const best = this.looks.find(changed);
    if (!best) return false;
    const here = this.looks.likenessAt(wholePixels(this.place), this.look);
    if (!best.certain && best.likeness.mean < here.mean + LIKER) return false;
    this.moveTo(best);
    return true;
  }

  /** Looks for content that was lost among what changed. */
  private findAgain(changed: readonly number[]): void {
    const best = this.looks.find(changed);
    if (!best) return;
    const { x, y, look, certain } = best;
    const { appearance, scale } = this.looks.at(look);
    let since = this.index;
    for (let back = 1; back < Math.min(KEPT, this.pictures.count); back++) {
      if (likenessAt(appearance, this.pictures.luma(back), x, y).mean < FADES.mean) break;
      since = this.index - back;
    }
    this.look = look;
    this.rest();
    this.certain = certain;
    this.see({ ...this.looks.refined({ x, y }, look), scale, sure: certain }, since);
  }
}

/** Notes where content is from a picture on, if that is anything new. */
function note({ places }: FollowedRun, from: number, place: FollowedPlace): void {
  const last = places[places.length - 1]?.place;
  const { x, y, scale, sure } = place;
  if (last?.x !== x || last.y !== y || last.scale !== scale || last.sure !== sure)
    places.push({ from, place });
}
