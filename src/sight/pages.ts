import { contentOf } from '@/core/vision/content';
import { tilesOf } from '@/core/vision/luma';
import type { Page } from '@/core/vision/page';
import type { Pictures } from './pictures';

/** A page is read once it has stood still for so long, in ms. */
const STANDS = 600;
/** A page is read no sooner than this after the one before, in ms: reading takes its time. */
const BETWEEN = 1200;
/** With this share of its tiles changed at once, or this share in all, it is another page. */
const AT_ONCE = 0.012;
const IN_ALL = 0.05;
/** A recording has no more pages to tell than this. */
const MOST_PAGES = 4000;

/** Reads what is on the screen, each time that it has stood still for a while. */
export class PageReader {
  private readonly found: Page[] = [];
  /** Since when the page stands still. */
  private since = 0;
  private changed = new Set<number>();
  private open: Omit<Page, 'to'> | null = null;
  private last = 0;
  private read = -Infinity;

  constructor(private readonly pictures: Pictures) {}

  /**
   * Looks at the newest picture.
   *
   * @param calm the tiles that changed, without those that change all the time
   */
  look(ms: number, calm: readonly number[]): void {
    this.last = ms;
    const { across, down } = tilesOf(this.pictures.size);
    const all = across * down;
    for (const tile of calm) this.changed.add(tile);
    if (calm.length > AT_ONCE * all || this.changed.size > IN_ALL * all) {
      this.close(ms);
      this.since = ms;
      this.changed = new Set();
      return;
    }
    if (this.open || ms - this.since < STANDS || this.found.length >= MOST_PAGES) return;
    if (ms - this.read < BETWEEN) return;
    this.read = ms;
    this.open = { from: this.since, ...contentOf(this.pictures.luma(0)) };
    this.changed = new Set();
  }

  private close(to: number): void {
    if (this.open) this.found.push({ ...this.open, to });
    this.open = null;
  }

  /** All that was read. */
  pages(): readonly Page[] {
    this.close(this.last);
    return this.found;
  }
}
