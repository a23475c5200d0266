import type { WordsMark } from '@/core/frame/mark';
import type { Size } from '@/core/scale/rect';
import { setLines, type SetLine } from '@/core/text/paragraphs';
import { PICTURE_FAMILY, type Pen, type Rasterizer } from './rasterizer';

/** Where a text callout's box, lines and arrow stand in the output; pixels. */
export interface TextBox {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly lines: readonly SetLine[];
  readonly lineHeight: number;
  readonly font: string;
}

const MAX_WIDTH = 0.36;
const EDGE = 0.012;

/** Lays the box out around its place; one that is filled is kept inside the output. */
export function layOutText(
  mark: WordsMark,
  output: Size,
  rasterizer: Pick<Rasterizer, 'measure'>,
): TextBox {
  const { fontSize } = mark;
  const font = `600 ${fontSize.toFixed(2)}px ${PICTURE_FAMILY}`;
  const measure = (line: string) => rasterizer.measure(font, line);
  const lines = setLines(mark.text || ' ', output.width * MAX_WIDTH, measure);
  const lineHeight = fontSize * 1.28;
  const width = Math.max(...lines.map(({ text }) => measure(text))) + fontSize * 1.1;
  const height = lines.length * lineHeight + fontSize * 0.6;
  const edge = output.width * EDGE;
  const clamp = (at: number, size: number, span: number) =>
    mark.fill === null ? at : Math.max(edge, Math.min(at, span - edge - size));
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

/** Draws box, words and arrow; `shift` is where the sprite's corner stands in the output. */
export function paintText(
  pen: Pen,
  mark: WordsMark,
  box: TextBox,
  shift: { x: number; y: number },
): void {
  const x = box.x - shift.x;
  const y = box.y - shift.y;
  if (mark.fill !== null) {
    pen.fillStyle = mark.fill;
    pen.strokeStyle = mark.fill;
    const tip = { x: mark.tip.x - shift.x, y: mark.tip.y - shift.y };
    if (mark.pointing) paintPointing(pen, mark, { ...box, x, y }, tip);
    pen.beginPath();
    if (mark.pointing === 'tail') pen.roundRect(x, y, box.width, box.height, mark.fontSize * 0.5);
    else pen.rect(x, y, box.width, box.height);
    pen.fill();
  }
  pen.fillStyle = mark.ink;
  pen.font = box.font;
  pen.textBaseline = 'alphabetic';
  const margin = mark.fontSize * 0.55;
  box.lines.forEach(({ text, rightToLeft }, i) => {
    // Said for each line, so that no host takes another direction from where it stands.
    pen.direction = rightToLeft ? 'rtl' : 'ltr';
    pen.textAlign = rightToLeft ? 'right' : 'left';
    pen.fillText(
      text,
      rightToLeft ? x + box.width - margin : x + margin,
      y + mark.fontSize * 0.3 + box.lineHeight * (i + 0.77),
    );
  });
}

/** The arrow or the tail of a box, as far as it is seen outside of it. */
function paintPointing(
  pen: Pen,
  mark: WordsMark,
  box: TextBox,
  tip: { x: number; y: number },
): void {
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
  pen.beginPath();
  pen.moveTo(cx, cy);
  pen.lineTo(tip.x - ux * head * 0.8, tip.y - uy * head * 0.8);
  pen.stroke();
  pen.beginPath();
  pen.moveTo(tip.x, tip.y);
  pen.lineTo(tip.x - ux * head - uy * head * 0.42, tip.y - uy * head + ux * head * 0.42);
  pen.lineTo(tip.x - ux * head + uy * head * 0.42, tip.y - uy * head - ux * head * 0.42);
  pen.closePath();
  pen.fill();
}
