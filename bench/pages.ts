import type { Rect, Size } from '@/core/scale/rect';
import type { Page, TextLine } from '@/core/vision/page';

/** What programs look like: what is on their screens, as shares of it. */
export type PageKind = 'form' | 'editor' | 'canvas' | 'windows' | 'monitors';

/** Numbers between 0 and 1, the same for the same seed (Park and Miller's generator). */
function chances(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
}

/** Lines of text of several lengths in a box, and the box as a panel. */
class Sheet {
  readonly lines: TextLine[] = [];
  readonly panels: Rect[] = [];

  constructor(
    private readonly size: Size,
    private readonly chance: () => number,
    /** Pixels of one at a height of 1440. */
    private readonly unit: number,
  ) {}

  /** A box, as shares of the screen, with rows of text so far apart (at a height of 1440). */
  text(
    left: number,
    top: number,
    right: number,
    bottom: number,
    apart: number,
    panel = true,
  ): void {
    const { width, height } = this.size;
    const box = {
      ...{ x: left * width, y: top * height },
      ...{ width: (right - left) * width, height: (bottom - top) * height },
    };
    if (panel) this.panels.push(box);
    const letters = 11 * this.unit;
    const edge = 14 * this.unit;
    for (let y = box.y + edge; y + letters * 2 < box.y + box.height; y += apart * this.unit)
      this.lines.push({
        ...{ x: box.x + edge, y, height: letters * 1.7, letters },
        width: (box.width - 2 * edge) * (0.3 + 0.65 * this.chance()),
      });
  }
}

function draw(sheet: Sheet, kind: PageKind): void {
  switch (kind) {
    case 'form':
      sheet.text(0, 0, 0.14, 1, 48);
      sheet.text(0.17, 0.02, 0.5, 0.07, 60, false);
      sheet.text(0.28, 0.12, 0.72, 0.92, 43);
      sheet.text(0.78, 0.12, 0.98, 0.6, 40);
      return;
    case 'editor':
      sheet.text(0, 0, 1, 0.04, 60, false);
      sheet.text(0, 0.06, 0.16, 1, 40);
      sheet.text(0.18, 0.08, 0.74, 0.98, 38);
      sheet.text(0.78, 0.08, 0.98, 0.5, 44);
      return;
    case 'canvas':
      sheet.text(0, 0, 1, 0.04, 60, false);
      sheet.text(0, 0.08, 0.06, 0.9, 60);
      sheet.text(0.86, 0.08, 0.99, 0.9, 44);
      return;
    case 'windows':
      sheet.text(0.02, 0.03, 0.4, 0.42, 40);
      sheet.text(0.6, 0.58, 0.98, 0.97, 40);
      return;
    case 'monitors':
      for (const left of [0, 1 / 3, 2 / 3]) {
        sheet.text(left + 0.005, 0.05, left + 0.06, 0.95, 40);
        sheet.text(left + 0.07, 0.05, left + 0.32, 0.95, 38);
      }
  }
}

/** A made page as a program of a kind has it, in pixels of a screen of some size. */
export function madePage(kind: PageKind, size: Size, seconds: number): Page {
  const sheet = new Sheet(size, chances(7), size.height / 1440);
  draw(sheet, kind);
  const { lines, panels } = sheet;
  return { from: 0, to: seconds * 1000, lines, panels };
}
