import { intersect, type Rect, type Size } from '@/core/scale/rect';
import type { Point } from '@/core/schema/parts';
import { appearanceIn, BLOCK, rescaled, type Appearance } from '@/core/vision/follow/appearance';
import { likenessAbove, likenessAt, type Likeness } from '@/core/vision/follow/likeness';
import { refined } from '@/core/vision/follow/refine';
import { searchPoints } from '@/core/vision/follow/search-points';
import type { LookPoint } from '@/core/vision/look';
import { tilesOf, type Luma } from '@/core/vision/luma';
import type { KernelHeap } from '@/kernels/heap';
import { inTiles, MARGIN, type Pictures } from './pictures';
import { LookSearch, type SearchedPicture } from './search';

/** Sizes are told apart in steps of this factor, between these. */
const FINE = 1.015;
const SMALLEST = 0.5;
const LARGEST = 2.02;
/** A size is another from this share on. */
const OTHER = 0.03;
/** Pictures are searched at a quarter of their size: letters become words there. */
const PART = 4;
/** What is searched for is at least so large, with what is around it. */
const LEAST_SIDE = 128;
/**
 * The best places of all sizes that are looked at closely: in a table many rows are as good as the
 * right one at a quarter of their size.
 */
const MOST = 16;
/** Places of about one size that are no further from each other are one, in pixels. */
const SAME = 8;
/** And how closely they are looked at. */
const CLOSELY = [-1.2, -0.9, -0.6, -0.3, 0, 0.3, 0.6, 0.9, 1.2].map((by) => 1 + by / 100);
const NEAR = 5;
/** At another size letters are drawn anew: this likeness is enough, others have half of it. */
const ENOUGH = { mean: 0.7, seen: 0.85 };
/** No other place is looked at once one is like it by this. */
const CLEAR = { mean: 0.85, seen: 0.95 };
const SEARCH = { worst: 0.06, most: 8, inOrder: true };
/** Codecs alter samples of a quarter's picture by less. */
const SMALL_NOISE = 4;

/** Where content was found at another size. */
export interface Resized {
  /** Where what was looked for lies. */
  readonly rect: Rect;
  readonly scale: number;
  readonly likeness: Likeness;
}

/** What is searched for at one size. */
interface AtSize {
  readonly scale: number;
  readonly sought: Appearance;
  readonly points: readonly LookPoint[];
}

/** What is to be found at another size: a rectangle of whole pixels with what is around it. */
export class ResizedContent {
  private readonly base: Rect;
  private readonly appearance: Appearance;
  private readonly own: Appearance;
  private sizes: readonly AtSize[] | null = null;

  constructor(
    picture: Luma,
    private readonly content: Rect,
  ) {
    this.base = withAround(content, picture);
    this.appearance = appearanceIn(picture, this.base);
    this.own = appearanceIn(picture, content);
  }

  /** All sizes in which there is anything to search for, made when the first is asked for. */
  private all(): readonly AtSize[] {
    if (this.sizes) return this.sizes;
    const sizes: AtSize[] = [];
    for (let scale = SMALLEST; scale <= LARGEST; scale *= FINE) {
      const sought = rescaled(this.appearance, scale / PART);
      const points = searchPoints(sought, SMALL_NOISE);
      if (points) sizes.push({ scale, sought, points });
    }
    return (this.sizes = sizes);
  }

  /**
   * Looks for it all over a picture; null where it is at none of the sizes.
   *
   * @param pictures whose newest one is searched
   * @param now the size that it has, which is left out
   */
  findIn(pictures: Pictures, now: number): Resized | null {
    const { heap } = pictures;
    using small = new Quarter(pictures);
    const { across, down } = tilesOf(small.size);
    const tiles = Array.from({ length: across * down }, (_, i) => i);
    const places: (Point & { readonly like: number; readonly scale: number })[] = [];
    for (const { scale, sought, points } of this.all()) {
      if (Math.abs(scale / now - 1) < OTHER) continue;
      using search = new LookSearch(heap, small, { ...sought, points }, 0, SEARCH);
      for (const { x, y } of search.find(tiles)) {
        const [u, v] = [Math.round(x), Math.round(y)];
        const like = likenessAt(sought, small.luma(), u, v).mean;
        places.push({ x: u * PART, y: v * PART, like, scale });
      }
    }
    places.sort((a, b) => b.like - a.like);
    let best: Resized | null = null;
    for (const place of apart(places)) {
      // Memory that was allocated meanwhile puts an end to views of it.
      const least = best?.likeness.mean ?? ENOUGH.mean;
      const found = this.closely(pictures.luma(0), place, least);
      if (!found || found.likeness.seen < ENOUGH.seen) continue;
      best = found;
      if (best && best.likeness.mean >= CLEAR.mean && best.likeness.seen >= CLEAR.seen) break;
    }
    return best;
  }

  /**
   * The best of the sizes and places around one that are liker than `least`. Lines of a page are set
   * anew, so that only the content itself is compared, but where it is too small for that.
   */
  private closely(picture: Luma, near: Place, least: number): Resized | null {
    const { base, content } = this;
    const isLarge = Math.min(content.width, content.height) * near.scale >= BLOCK;
    const [told, appearance] = isLarge ? [content, this.own] : [base, this.appearance];
    let best = null as (Point & Omit<Resized, 'rect'> & { readonly seen: Appearance }) | null;
    for (const by of CLOSELY) {
      const scale = near.scale * by;
      const seen = rescaled(appearance, scale);
      const x0 = Math.round(near.x + (told.x - base.x) * scale);
      const y0 = Math.round(near.y + (told.y - base.y) * scale);
      for (let y = y0 - NEAR; y <= y0 + NEAR; y++)
        for (let x = x0 - NEAR; x <= x0 + NEAR; x++) {
          const likeness = likenessAbove(seen, picture, x, y, best?.likeness.mean ?? least);
          if (likeness) best = { x, y, scale, likeness, seen };
        }
    }
    if (!best) return null;
    const { scale, likeness } = best;
    const { x, y } = refined(best.seen, picture, best);
    return {
      ...{ scale, likeness },
      rect: {
        x: x + (content.x - told.x) * scale,
        y: y + (content.y - told.y) * scale,
        width: content.width * scale,
        height: content.height * scale,
      },
    };
  }
}

type Place = Point & { readonly scale: number };

/** The first places that are no two the same. */
function apart<P extends Place>(places: readonly P[]): P[] {
  const kept: P[] = [];
  for (const place of places) {
    const same = ({ x, y, scale }: Place) =>
      Math.abs(x - place.x) <= SAME &&
      Math.abs(y - place.y) <= SAME &&
      Math.abs(scale / place.scale - 1) < OTHER;
    if (!kept.some(same)) kept.push(place);
    if (kept.length === MOST) break;
  }
  return kept;
}

/** A rectangle with enough around it, within a picture. */
function withAround({ x, y, width, height }: Rect, picture: Size): Rect {
  const more = (length: number) => Math.max(0, Math.ceil((LEAST_SIDE - length) / 2));
  const [across, down] = [more(width), more(height)];
  return intersect(
    {
      ...{ x: x - across, y: y - down },
      ...{ width: width + 2 * across, height: height + 2 * down },
    },
    { x: 0, y: 0, width: picture.width, height: picture.height },
  );
}

/** A picture of whole tiles at a quarter of its size, in the kernels' memory. */
class Quarter implements SearchedPicture {
  readonly size: Size;
  readonly stride: number;
  private readonly heap: KernelHeap;
  private readonly at: number;
  private readonly bytes: number;

  constructor(pictures: Pictures) {
    const { heap, stride } = pictures;
    const { width, height } = pictures.size;
    this.heap = heap;
    const [w, h] = [width / PART, height / PART];
    this.size = inTiles({ width: w, height: h });
    this.stride = this.size.width;
    this.bytes = this.stride * (this.size.height + MARGIN) + MARGIN;
    this.at = heap.allocate(this.bytes);
    heap.bytes(this.at, this.bytes).fill(0);
    using half = heap.borrow((width * height) / 4);
    using quarter = heap.borrow(w * h);
    const { halvePlane, copyRows } = heap.exports;
    halvePlane(pictures.address(0), stride, width, height, half.at);
    halvePlane(half.at, width / 2, width / 2, height / 2, quarter.at);
    copyRows(quarter.at, w, this.at, this.stride, w, h);
  }

  address(): number {
    return this.at;
  }

  luma(): Luma {
    const { width, height } = this.size;
    return { data: this.heap.bytes(this.at, this.bytes), width, height, stride: this.stride };
  }

  [Symbol.dispose](): void {
    this.heap.release(this.at);
  }
}
