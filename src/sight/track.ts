import type { PointerLook } from '@/core/vision/look';
import { TILE, tilesOf } from '@/core/vision/luma';
import type { Candidate, Picture } from '@/core/vision/pointer-path';
import type { Pictures } from './pictures';
import { LookSearch } from './search';

/** Much of a picture has changed from this share of its tiles on. */
const MUCH = 0.15;
/** A pointer that was sure, and is so again, is looked for within so many pixels only. */
const SURE = 0.14;
const NEAR = 220;

/** What is found again within so many pixels, and fits as well within this, was there before. */
const THERE = 0.4;
const AS_WELL = 0.03;

/**
 * A place, and what it was in the picture before, if it was there: though something changed close
 * by, nothing came to it.
 */
function knownFrom(before: readonly Candidate[], one: Candidate): Candidate {
  const again = before.find(
    ({ look, x, y, misfit }) =>
      look === one.look &&
      Math.max(Math.abs(x - one.x), Math.abs(y - one.y)) < THERE &&
      Math.abs(misfit - one.misfit) < AS_WELL,
  );
  return again ? { ...one, again } : one;
}

/** Looks for known looks of the pointer in a recording, picture by picture. */
export class PointerTracker {
  private readonly searches: LookSearch[] = [];
  private readonly looks: PointerLook[] = [];
  private readonly all: readonly number[];
  /** Looks from this one on have not been looked for in any picture yet. */
  private fresh = 0;
  private readonly touched: Uint8Array;
  private candidates: readonly Candidate[] = [];
  /** What each picture had to say. */
  readonly found: Picture[] = [];

  constructor(
    private readonly pictures: Pictures,
    looks: readonly PointerLook[],
  ) {
    this.know(looks);
    const { across, down } = tilesOf(pictures.size);
    this.touched = new Uint8Array(across * down);
    this.all = [...this.touched.keys()];
  }

  /** Looks for these from now on; those known before come first, in the same order. */
  know(looks: readonly PointerLook[]): void {
    const { heap } = this.pictures;
    for (const look of looks.slice(this.looks.length)) {
      this.searches.push(new LookSearch(heap, this.pictures, look, this.looks.length));
      this.looks.push(look);
    }
  }

  /** Looks at the newest picture, of which it is known which tiles changed. */
  look(ms: number, changed: readonly number[]): void {
    const { touched, searches, fresh } = this;
    this.fresh = searches.length;
    if (changed.length || fresh < searches.length) {
      touched.fill(0);
      for (const tile of changed) touched[tile] = 1;
      const before = this.candidates;
      const stayed = before.filter((at) => !this.isTouched(at));
      const found = this.search(changed, fresh).map((one) => knownFrom(before, one));
      // What lies half in tiles that did not change is found again where it was.
      const known = (one: Candidate) =>
        stayed.some((at) => at.look === one.look && Math.hypot(at.x - one.x, at.y - one.y) < 2);
      this.candidates = [...stayed, ...found.filter((one) => !known(one))];
    }
    this.found.push({ ms, candidates: this.candidates });
  }

  /**
   * Looks for all looks in what changed, and for those from `fresh` on everywhere. Where much of
   * the picture changed, as in a scroll, around where the pointer was first.
   */
  private search(changed: readonly number[], fresh: number): Candidate[] {
    const { searches, all } = this;
    const findIn = (tiles: readonly number[]) =>
      searches.flatMap((search, i) => search.find(i < fresh ? tiles : all));
    const [last] = [...this.candidates].sort((a, b) => a.misfit - b.misfit);
    if (fresh < searches.length || changed.length < MUCH * all.length) return findIn(changed);
    if (!last || last.misfit > SURE) return findIn(changed);
    const { across } = tilesOf(this.pictures.size);
    const near = changed.filter(
      (tile) =>
        Math.abs((tile % across) * TILE - last.x) < NEAR &&
        Math.abs(Math.floor(tile / across) * TILE - last.y) < NEAR,
    );
    const found = findIn(near);
    return found.some(({ misfit }) => misfit <= SURE) ? found : findIn(changed);
  }

  private isTouched({ x, y, look }: Candidate): boolean {
    const { width, height } = this.looks[look]!;
    const { across, down } = tilesOf(this.pictures.size);
    const right = Math.min(across - 1, Math.floor((x + width) / TILE));
    const bottom = Math.min(down - 1, Math.floor((y + height) / TILE));
    for (let row = Math.floor(y / TILE); row <= bottom; row++)
      for (let column = Math.floor(x / TILE); column <= right; column++)
        if (this.touched[row * across + column]) return true;
    return false;
  }

  [Symbol.dispose](): void {
    for (const search of this.searches) search[Symbol.dispose]();
  }
}
