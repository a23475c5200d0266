import type { Point } from '@/core/schema/parts';
import type { Appearance } from '@/core/vision/follow/appearance';
import { worstPart } from '@/core/vision/follow/itself';
import { likenessAt, type Likeness } from '@/core/vision/follow/likeness';
import { refined } from '@/core/vision/follow/refine';
import { searchPoints } from '@/core/vision/follow/search-points';
import type { Luma } from '@/core/vision/luma';
import type { Pictures } from './pictures';
import { LookSearch } from './search';

/**
 * Content is somewhere else, without anything that vouches for it, with these: two addresses of one
 * house are the same but for a few letters.
 */
const ALONE = { mean: 0.75, seen: 0.92 };
/** The worst letter of content is seen so well at least, less this, and never less than that. */
const USUALLY = 0.92;
const SLACK = 0.04;
/** Whose worst letter is seen worse by this than of late is another, whatever went along with it. */
const DOUBT = 0.2;
const LEAST_ITSELF = 0.55;
/** So many pictures tell how well it is seen when it moves. */
const LATELY = 12;
/** Places that are looked at closely. */
export const SEARCH = { worst: 0.12, most: 8, inOrder: true };

/** One look of content: at a size, in light colours or dark ones. */
export interface ContentLook {
  readonly appearance: Appearance;
  /** Times as large as where it was marked. */
  readonly scale: number;
  /** From the content's corner to that of what it is told by. */
  readonly shift: Point;
  readonly search: LookSearch | null;
}

/** A place at which content may be, and by which of its looks. */
export interface FoundContent extends Point {
  readonly likeness: Likeness;
  readonly score: number;
  readonly look: number;
  /** Whether it is the content itself, and not another like it. */
  readonly certain: boolean;
}

/** A place to whole pixels. */
export const wholePixels = ({ x, y }: Point): Point => ({ x: Math.round(x), y: Math.round(y) });

/** Whether what is seen is enough for a place that nothing else speaks for. */
export const isEnough = ({ mean, seen }: Likeness): boolean =>
  mean >= ALONE.mean && seen >= ALONE.seen;

/** The looks that followed content has had, and how well the newest picture shows them. */
export class ContentLooks {
  private readonly all: ContentLook[] = [];
  /** How well its worst letter was seen of late, where it went along with all around it. */
  private readonly lately: number[] = [];

  constructor(private readonly pictures: Pictures) {}

  /** How many there are. */
  get count(): number {
    return this.all.length;
  }

  /** A look by its number. */
  at(look: number): ContentLook {
    return this.all[look]!;
  }

  /** Takes one more; answers its number. */
  add(appearance: Appearance, scale = 1, shift: Point = { x: 0, y: 0 }): number {
    const { heap } = this.pictures;
    const points = searchPoints(appearance);
    const search =
      points && new LookSearch(heap, this.pictures, { ...appearance, points }, this.count, SEARCH);
    return this.all.push({ appearance, scale, shift, search }) - 1;
  }

  /** The newest picture; to be asked for again after anything that may take memory. */
  private get picture(): Luma {
    return this.pictures.luma(0);
  }

  /** How like a look a place in whole pixels is. */
  likenessAt({ x, y }: Point, look: number): Likeness {
    return likenessAt(this.at(look).appearance, this.picture, x, y);
  }

  /** A place to fractions of a pixel. */
  refined(place: Point, look: number): Point {
    return refined(this.at(look).appearance, this.picture, wholePixels(place));
  }

  /** How well the worst letter was seen of late. */
  private get usually(): number {
    return Math.min(...this.lately, USUALLY);
  }

  private worst(place: Point, look: number): number {
    const { x, y } = this.refined(place, look);
    return worstPart(this.at(look).appearance, this.picture, x, y);
  }

  /** The best place of any look among tiles that changed; null where it is at none. */
  find(changed: readonly number[]): FoundContent | null {
    let best = null as FoundContent | null;
    this.all.forEach(({ search }, look) => {
      for (const place of (search?.find(changed) ?? []).map(wholePixels)) {
        const likeness = this.likenessAt(place, look);
        if (!isEnough(likeness) || (best && likeness.mean <= best.score)) continue;
        const certain = this.isItself(place, look);
        best = { ...place, likeness, look, certain, score: likeness.mean };
      }
    });
    return best;
  }

  /**
   * Whether a place shows the content itself, and not another like it: each letter as well as it was
   * seen when it moved. Codecs and sizes differ in that.
   */
  isItself(place: Point, look: number): boolean {
    return this.worst(place, look) >= Math.max(LEAST_ITSELF, this.usually - SLACK);
  }

  /**
   * Whether a place may show another like it: rows of a table may repeat so that what is around went
   * along with the wrong one.
   */
  maybeAnother(place: Point, look: number): boolean {
    return this.worst(place, look) < this.usually - DOUBT;
  }

  /** Learns how well the content is seen in this recording when it moves. */
  learn({ x, y }: Point, look: number): void {
    this.lately.push(worstPart(this.at(look).appearance, this.picture, x, y));
    if (this.lately.length > LATELY) this.lately.shift();
  }

  [Symbol.dispose](): void {
    for (const { search } of this.all) search?.[Symbol.dispose]();
  }
}
