import type { KeysMark } from '@/core/frame/mark';
import type { Pen, Rasterizer } from './rasterizer';

/** Where keycaps stand within their sprite; pixels. */
export interface KeyCaps {
  readonly width: number;
  readonly height: number;
  readonly caps: readonly { readonly text: string; readonly x: number; readonly width: number }[];
  readonly font: string;
  readonly fontSize: number;
}

/** Shares of the letters' size: the room beside and above them, between caps, of the lower edge. */
const SIDE = 0.5;
const HEIGHT = 1.7;
const GAP = 0.28;
const EDGE = 0.12;
/** Room around all for edges that are drawn. */
const ROOM = 2;

/**
 * Lays keycaps out side by side, each at least as wide as it is high; where they would be wider
 * than a picture of some width, all are smaller.
 */
export function layOutKeys(mark: KeysMark, most: number, rasterizer: Rasterizer): KeyCaps {
  const family = rasterizer.family(mark.caps.join(' '));
  const at = (fontSize: number): KeyCaps => {
    const font = `600 ${fontSize.toFixed(2)}px ${family}`;
    let x = ROOM;
    const caps = mark.caps.map((text) => {
      const width = Math.max(
        fontSize * HEIGHT,
        rasterizer.measure(font, text) + fontSize * SIDE * 2,
      );
      const cap = { text, x, width };
      x += width + fontSize * GAP;
      return cap;
    });
    const width = Math.ceil(x - fontSize * GAP + ROOM);
    return { caps, width, height: Math.ceil(fontSize * HEIGHT + ROOM * 2), font, fontSize };
  };
  const wanted = at(mark.fontSize);
  return wanted.width > most ? at((mark.fontSize * most) / wanted.width) : wanted;
}

/** Draws keycaps: each a rounded cap over a darker edge, with its name in the middle. */
export function paintKeys(pen: Pen, { fill, ink }: KeysMark, set: KeyCaps): void {
  const { fontSize } = set;
  const height = set.height - ROOM * 2;
  const radius = fontSize * 0.25;
  pen.font = set.font;
  pen.textBaseline = 'alphabetic';
  pen.textAlign = 'center';
  pen.direction = 'ltr';
  for (const { text, x, width } of set.caps) {
    pen.beginPath();
    pen.roundRect(x, ROOM, width, height, radius);
    pen.fillStyle = ink;
    pen.fill();
    pen.beginPath();
    const line = Math.max(1, fontSize * 0.05);
    // Of a cap that is hardly there nothing is left within its edge; canvases refuse less than 0.
    pen.roundRect(
      x + line,
      ROOM + line,
      Math.max(0, width - line * 2),
      Math.max(0, height - fontSize * EDGE - line),
      Math.max(0, radius - line),
    );
    pen.fillStyle = fill;
    pen.fill();
    pen.fillStyle = ink;
    pen.fillText(text, x + width / 2, ROOM + (height - fontSize * EDGE) / 2 + fontSize * 0.34);
  }
}
