import type { WordsMark } from '@/core/frame/mark';
import type { Size } from '@/core/scale/rect';
import { setLines, type SetLine } from '@/core/text/paragraphs';
import type { Pen, Rasterizer } from './rasterizer';

/** Where a text callout's box, lines and arrow stand in the output; pixels. */
export interface TextBox {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly lines: readonly (SetLine & { readonly width: number })[];
  readonly lineHeight: number;
  readonly font: string;
}

const MAX_WIDTH = 0.36;
const EDGE = 0.012;

/**
 * Lays the box out around its place, as it is before it is turned; one that is filled and upright is
 * kept inside the output.
 */
export function layOutText(
  mark: WordsMark,
  output: Size,
  rasterizer: Pick<Rasterizer, 'measure' | 'family'>,
): TextBox {
  const { fontSize } = mark;
  const font = `${mark.lettering.weight} ${fontSize.toFixed(2)}px ${rasterizer.family(mark.text)}`;
  const measure = (line: string) => rasterizer.measure(font, line);
  const lines = setLines(mark.text || ' ', output.width * MAX_WIDTH, measure).map((line) => ({
    ...line,
    width: measure(line.text),
  }));
  const lineHeight = fontSize * 1.28;
  const width = Math.max(...lines.map((line) => line.width)) + fontSize * 1.1;
  const height = lines.length * lineHeight + fontSize * 0.6;
  const edge = output.width * EDGE;
  const clamp = (at: number, size: number, span: number) =>
    mark.fill === null || mark.turn ? at : Math.max(edge, Math.min(at, span - edge - size));
  return {
    x: clamp(mark.tip.x + mark.offset.dx - width / 2, width, output.width),
    y: clamp(mark.tip.y + mark.offset.dy - height / 2, height, output.height),
    width,
    height,
    lines,
    lineHeight,
    font,
  };
}

/** Draws what points, box and words; all in the pen's own pixels. */
export function paintText(pen: Pen, mark: WordsMark, box: TextBox): void {
  if (mark.fill !== null) {
    pen.fillStyle = mark.fill;
    pen.strokeStyle = mark.fill;
    if (mark.pointing) paintPointing(pen, mark, box);
  }
  const { outline } = mark.lettering;
  // The lowest of what is drawn has the shadow.
  if (mark.lettering.shadow) castShadow(pen, mark.fontSize);
  if (mark.ground && mark.fill !== null) {
    pen.beginPath();
    pen.roundRect(box.x, box.y, box.width, box.height, mark.corner);
    pen.fill();
    pen.shadowColor = NO_SHADOW;
  }
  if (outline) {
    pen.strokeStyle = outline.color;
    // Half of the line lies under the letter.
    pen.lineWidth = outline.width * 2;
    pen.lineJoin = 'round';
    setWords(pen, mark, box, 'strokeText');
    pen.shadowColor = NO_SHADOW;
  }
  pen.fillStyle = mark.ink;
  setWords(pen, mark, box, 'fillText');
  pen.shadowColor = NO_SHADOW;
}

/** Of the shadow, as shares of the letters' size. */
const SHADOW = { blur: 0.4, below: 0.12, color: '#1e2a3280' } as const;

const NO_SHADOW = '#00000000';

function castShadow(pen: Pen, fontSize: number): void {
  pen.shadowColor = SHADOW.color;
  pen.shadowBlur = fontSize * SHADOW.blur;
  pen.shadowOffsetY = fontSize * SHADOW.below;
}

/** Where a line that is shorter than the longest stands, as a share of the room that is left. */
const ROOM_BEFORE = { start: 0, middle: 0.5, end: 1 } as const;

/** Draws the lines of a box. */
function setWords(
  pen: Pen,
  { fontSize, lettering }: WordsMark,
  box: TextBox,
  how: 'fillText' | 'strokeText',
): void {
  pen.font = box.font;
  pen.textBaseline = 'alphabetic';
  const margin = fontSize * 0.55;
  const inner = box.width - margin * 2;
  box.lines.forEach(({ text, rightToLeft, width }, i) => {
    // Said for each line, so that no host takes another direction from where it stands.
    pen.direction = rightToLeft ? 'rtl' : 'ltr';
    pen.textAlign = rightToLeft ? 'right' : 'left';
    const before = (inner - width) * ROOM_BEFORE[lettering.align];
    pen[how](
      text,
      box.x + (rightToLeft ? box.width - margin - before : margin + before),
      box.y + fontSize * 0.3 + box.lineHeight * (i + 0.77),
    );
  });
}

/** The arrow or the tail of a box, as far as it is seen outside of it. */
function paintPointing(pen: Pen, mark: WordsMark, box: TextBox): void {
  const { tip } = mark;
  const cx = box.x + box.width / 2;
  const cy = box.y + box.height / 2;
  const length = Math.hypot(tip.x - cx, tip.y - cy);
  const inside =
    tip.x > box.x && tip.x < box.x + box.width && tip.y > box.y && tip.y < box.y + box.height;
  if (inside || length < mark.fontSize) return;
  const ux = (tip.x - cx) / length;
  const uy = (tip.y - cy) / length;
  if (mark.pointing === 'tail') {
    // As wide as half of the box's lesser side where it leaves the middle.
    const half = Math.min(box.width, box.height) / 4;
    pen.beginPath();
    pen.moveTo(cx - uy * half, cy + ux * half);
    pen.lineTo(tip.x, tip.y);
    pen.lineTo(cx + uy * half, cy - ux * half);
    pen.closePath();
    pen.fill();
    return;
  }
  const head = mark.fontSize * 0.8;
  pen.lineWidth = Math.max(2, mark.fontSize * 0.17);
  pen.lineCap = 'butt';
  // Where no ground hides its beginning the arrow leaves the box at its edge.
  const within = Math.min(box.width / 2 / Math.abs(ux), box.height / 2 / Math.abs(uy));
  const begin = mark.ground ? 0 : Math.min(within, length - head);
  pen.beginPath();
  pen.moveTo(cx + ux * begin, cy + uy * begin);
  pen.lineTo(tip.x - ux * head * 0.8, tip.y - uy * head * 0.8);
  pen.stroke();
  pen.beginPath();
  pen.moveTo(tip.x, tip.y);
  pen.lineTo(tip.x - ux * head - uy * head * 0.42, tip.y - uy * head + ux * head * 0.42);
  pen.lineTo(tip.x - ux * head + uy * head * 0.42, tip.y - uy * head - ux * head * 0.42);
  pen.closePath();
  pen.fill();
}
