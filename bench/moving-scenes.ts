import type { Canvas, SKRSContext2D } from '@napi-rs/canvas';
import { intersect } from '@/core/scale/rect';
import { drawTable, markedRect, ROW, type MovingPlan } from './moving-pages';

const ROWS = 90;
const HEADER = 72;

type Scene = MovingPlan['scene'];

/** The share of what is marked that lies within a rectangle, at a place and size. */
function shareWithin(x: number, y: number, scale: number, view: Parameters<typeof intersect>[1]) {
  const { width, height } = markedRect();
  const own = { x, y, width: width * scale, height: height * scale };
  const seen = intersect(own, view);
  return (Math.max(0, seen.width) * Math.max(0, seen.height)) / (own.width * own.height);
}

/** A heading that stays, above what is scrolled. */
function drawHeader(pen: SKRSContext2D, width: number, dark = false) {
  pen.fillStyle = dark ? '#30343b' : '#dcd5c6';
  pen.fillRect(0, 0, width, HEADER);
  pen.fillStyle = dark ? '#fff' : '#26241f';
  pen.font = '24px sans-serif';
  pen.textBaseline = 'middle';
  pen.fillText('Orders of this week', 60, HEADER / 2);
}

/** A page that is scrolled, by how far it is for each picture. */
export const scrolling =
  (offset: (index: number, plan: MovingPlan) => number): Scene =>
  (plan) => {
    const { width, height, dark = false } = plan;
    const page = drawTable(width, ROWS, dark);
    const { x, y } = markedRect();
    return (pen, index) => {
      const by = Math.round(offset(index, plan));
      pen.drawImage(page, 0, HEADER - by);
      drawHeader(pen, width, dark);
      const top = y + HEADER - by;
      const view = { x: 0, y: HEADER, width, height: height - HEADER };
      return { x, y: top, scale: 1, seen: shareWithin(x, top, 1, view) };
    };
  };

/** To and fro between two places, in so many pictures each way. */
export const toAndFro =
  (far: number, pictures: number, rest: number) =>
  (index: number): number => {
    const whole = pictures + rest;
    const [turn, at] = [Math.floor(index / whole) % 2, Math.min(index % whole, pictures)];
    return (turn ? pictures - at : at) * (far / pictures);
  };

/** In steps of a wheel, with rests between. */
export const wheel =
  (notch: number, pictures: number, turns: number) =>
  (index: number): number => {
    const at = Math.floor(index / pictures) % (2 * turns);
    return (at < turns ? at : 2 * turns - at) * notch;
  };

/** A window that is dragged over another page. */
export const dragged: Scene = ({ width, height }) => {
  const under = drawTable(width, ROWS, true);
  const page = drawTable(1240, 18);
  const mark = markedRect();
  return (pen, index) => {
    pen.drawImage(under, 0, -600);
    const u = index / 70;
    const left = Math.round(300 + 260 * Math.sin(u * 2.1));
    const top = Math.round(140 + 90 * Math.sin(u * 3.3));
    pen.fillStyle = '#8a8f98';
    pen.fillRect(left - 1, top - 35, page.width + 2, page.height + 36);
    pen.drawImage(page, left, top);
    const [x, y] = [left + mark.x, top + mark.y];
    return { x, y, scale: 1, seen: shareWithin(x, y, 1, { x: 0, y: 0, width, height }) };
  };
};

const ZOOMS = [1, 1.25, 1.5, 1.25, 1, 0.9, 0.75, 1];

/** A page that is magnified and made smaller, its letters drawn anew. */
export const zoomed: Scene = ({ width, height }) => {
  const pages = new Map<number, Canvas>();
  const mark = markedRect();
  return (pen, index) => {
    const zoom = ZOOMS[Math.floor(index / 30) % ZOOMS.length]!;
    const page = pages.get(zoom) ?? drawTable(width, ROWS, false, zoom);
    pages.set(zoom, page);
    pen.fillStyle = '#fbfaf7';
    pen.fillRect(0, 0, width, height);
    // Pages keep their top left corner.
    pen.drawImage(page, 0, HEADER - 180);
    drawHeader(pen, width);
    const [x, y] = [mark.x * zoom, mark.y * zoom + HEADER - 180];
    const view = { x: 0, y: HEADER, width, height: height - HEADER };
    return { x, y, scale: zoom, seen: shareWithin(x, y, zoom, view) };
  };
};

/** A menu and a dialog that open over it, and a pointer that goes across, on a page that scrolls. */
export const hidden: Scene = (plan) => {
  const { width } = plan;
  const page = drawTable(width, ROWS);
  const mark = markedRect();
  return (pen, index) => {
    const by = index > 150 ? Math.min(140, (index - 150) * 4) : 0;
    pen.drawImage(page, 0, HEADER - by);
    drawHeader(pen, width);
    const [x, y] = [mark.x, mark.y + HEADER - by];
    const at = index % 80;
    let box = { x: 0, y: 0, width: 0, height: 0 };
    if (index < 150 && at >= 30 && at < 55)
      box =
        index < 80
          ? { x: x + 120, y: y - 30, width: 260, height: 220 }
          : { x: x - 100, y: y - 120, width: 700, height: 300 };
    pen.fillStyle = '#ffffff';
    pen.fillRect(box.x, box.y, box.width, box.height);
    pen.fillStyle = '#26241f';
    pen.font = '18px sans-serif';
    if (box.width)
      ['Open', 'Copy the order', 'Send a reminder', 'Archive'].forEach((word, i) =>
        pen.fillText(word, box.x + 20, box.y + 36 + i * 44),
      );
    // The pointer.
    const [px, py] = [x - 60 + ((index * 7) % 460), y + 12 + 30 * Math.sin(index / 9)];
    pen.fillStyle = '#000';
    pen.beginPath();
    [px, py, px, py + 22, px + 6, py + 16, px + 15, py + 16].forEach((v, i, all) => {
      if (i % 2 === 0) pen[i ? 'lineTo' : 'moveTo'](v, all[i + 1]!);
    });
    pen.fill();
    const lost = intersect({ x, y, width: mark.width, height: mark.height }, box);
    const share = (Math.max(0, lost.width) * Math.max(0, lost.height)) / (mark.width * mark.height);
    return { x, y, scale: 1, seen: 1 - share };
  };
};

/** A page that gives way to another, comes back, and is shown in dark colours. */
export const replaced: Scene = ({ width, height }) => {
  const [light, dark] = [drawTable(width, ROWS), drawTable(width, ROWS, true)];
  const mark = markedRect();
  return (pen, index) => {
    const at = Math.floor(index / 40) % 5;
    pen.drawImage(at === 3 ? dark : light, 0, HEADER);
    drawHeader(pen, width, at === 3);
    if (at === 1) {
      pen.fillStyle = '#f2efe9';
      pen.fillRect(0, HEADER, width, height);
      pen.drawImage(light, 0, 60 * ROW, 1000, 12 * ROW, 300, 200, 1000, 12 * ROW);
    }
    // It fades in and out, as pages do.
    const fog = at === 2 ? Math.max(0, 1 - (index % 40) / 8) : 0;
    if (fog) {
      pen.fillStyle = `rgba(242, 239, 233, ${fog})`;
      pen.fillRect(0, HEADER, width, height);
    }
    return { x: mark.x, y: mark.y + HEADER, scale: 1, seen: at === 1 ? 0 : 1 - fog };
  };
};
