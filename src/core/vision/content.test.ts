import { createCanvas, type SKRSContext2D } from '@napi-rs/canvas';
import fc from 'fast-check';
import { costOfSeeing } from '../framing/cost';
import { lettersIn, shiftedView, widerView } from '../framing/cuts';
import { edgesOf } from '../framing/edge-index';
import { isWithin, type Rect } from '../scale/rect';
import { contentOf } from './content';
import type { Luma } from './luma';

const SIZE = { width: 1280, height: 720 };

/** What a page looks like that is drawn. */
function drawn(paint: (pen: SKRSContext2D) => void, ground = '#fafafa'): Luma {
  const canvas = createCanvas(SIZE.width, SIZE.height);
  const pen = canvas.getContext('2d');
  pen.fillStyle = ground;
  pen.fillRect(0, 0, SIZE.width, SIZE.height);
  paint(pen);
  const pixels = pen.getImageData(0, 0, SIZE.width, SIZE.height).data;
  const data = Uint8Array.from({ length: SIZE.width * SIZE.height }, (_, i) =>
    Math.round(0.21 * pixels[i * 4]! + 0.72 * pixels[i * 4 + 1]! + 0.07 * pixels[i * 4 + 2]!),
  );
  return { data, stride: SIZE.width, ...SIZE };
}

const near = (a: Rect, b: Rect, by: number) =>
  Math.abs(a.x - b.x) <= by &&
  Math.abs(a.y - b.y) <= by &&
  Math.abs(a.x + a.width - b.x - b.width) <= by &&
  Math.abs(a.y + a.height - b.y - b.height) <= by;

test('lines of text are found, with the height of their letters, on light and on dark', () => {
  for (const [ground, ink] of [
    ['#fafafa', '#222222'],
    ['#1e2226', '#c8ccd2'],
  ] as const) {
    const sizes = [14, 18, 26, 40];
    const boxes: Rect[] = [];
    const letters: number[] = [];
    const picture = drawn((pen) => {
      pen.fillStyle = ink;
      sizes.forEach((size, i) => {
        pen.font = `${size}px sans-serif`;
        const text = 'Slow ramp, long soak at the peak';
        const [x, y] = [60, 90 + i * 120];
        pen.fillText(text, x, y);
        const told = pen.measureText(text);
        const [top, height] = [told.actualBoundingBoxAscent, told.actualBoundingBoxDescent];
        boxes.push({ x, y: y - top, width: told.width, height: top + height });
        letters.push(pen.measureText('x').actualBoundingBoxAscent);
      });
    }, ground);
    const { lines, panels } = contentOf(picture);
    expect(panels).toEqual([]);
    expect(lines).toHaveLength(sizes.length);
    boxes.forEach((box, i) => {
      const line = lines.find((one) => near(one, box, 5))!;
      expect(line).toBeDefined();
      expect(Math.abs(line.letters - letters[i]!)).toBeLessThanOrEqual(
        Math.max(2, letters[i]! * 0.25),
      );
    });
  }
});

test('panels are found, and text that stands in boxes of its own is no line across them', () => {
  const boxes = [
    { x: 80, y: 60, width: 420, height: 300 },
    { x: 520, y: 60, width: 420, height: 300 },
  ];
  const picture = drawn((pen) => {
    pen.font = '18px sans-serif';
    for (const { x, y, width, height } of boxes) {
      pen.fillStyle = '#ffffff';
      pen.fillRect(x, y, width, height);
      pen.strokeStyle = '#b0b4ba';
      pen.strokeRect(x + 0.5, y + 0.5, width, height);
      pen.fillStyle = '#333333';
      pen.fillText('Stoneware, cone six, oxidation only', x + 110, y + 80);
    }
  }, '#e4e6e8');
  const { lines, panels } = contentOf(picture);
  for (const box of boxes) expect(panels.some((panel) => near(panel, box, 4))).toBe(true);
  expect(lines).toHaveLength(2);
  for (const line of lines) expect(boxes.some((box) => isWithin(line, box))).toBe(true);
});

test('a plain ground, a ramp of tones and noise are no text', () => {
  expect(contentOf(drawn(() => {}))).toEqual({ lines: [], panels: [] });
  const ramp = drawn((pen) => {
    const shade = pen.createLinearGradient(0, 0, SIZE.width, 0);
    shade.addColorStop(0, '#000000');
    shade.addColorStop(1, '#ffffff');
    pen.fillStyle = shade;
    pen.fillRect(0, 0, SIZE.width, SIZE.height);
  });
  expect(contentOf(ramp).lines).toEqual([]);
  const { data } = drawn(() => {});
  data.forEach((_, i) => {
    data[i] = Math.imul(i + 1, 2654435761) >>> 24;
  });
  expect(contentOf({ data, stride: SIZE.width, ...SIZE }).lines).toEqual([]);
});

test('a view is shifted a little, to where it cuts less, and never away from what it is for', () => {
  const line = fc.record({
    x: fc.integer({ min: 0, max: 1500 }),
    y: fc.integer({ min: 0, max: 1000 }),
    width: fc.integer({ min: 30, max: 500 }),
    height: fc.integer({ min: 10, max: 40 }),
    letters: fc.integer({ min: 6, max: 20 }),
  });
  const whole = { x: 0, y: 0, width: 1920, height: 1080 };
  fc.assert(
    fc.property(
      fc.array(line, { maxLength: 40 }),
      fc.integer({ min: 0, max: 480 }),
      fc.integer({ min: 0, max: 270 }),
      (lines, x, y) => {
        const page = { lines, panels: [] };
        const view = { x: x * 2, y: y * 2, width: 960, height: 540 };
        const keep = { x: view.x + 400, y: view.y + 200, width: 160, height: 100 };
        const shifted = shiftedView(view, keep, whole, page);
        expect(edgesOf(page).cutsOf(shifted)).toBeLessThanOrEqual(edgesOf(page).cutsOf(view));
        expect(isWithin(shifted, whole)).toBe(true);
        expect(isWithin(keep, shifted)).toBe(true);
        expect(shifted.width).toBe(view.width);
        expect(Math.abs(shifted.x - view.x)).toBeLessThanOrEqual(0.15 * view.width);
        // A wider one cuts much less, or there is none.
        const wider = widerView(shifted, keep, whole, page);
        if (!wider) return;
        const cuts = (one: typeof view) => edgesOf(page).cutsOf(one);
        expect(cuts(wider)).toBeLessThanOrEqual(cuts(shifted) - 0.7);
        expect(isWithin(wider, whole)).toBe(true);
        expect(isWithin(keep, wider)).toBe(true);
        expect(wider.width / wider.height).toBeCloseTo(16 / 9, 6);
      },
    ),
  );
  const page = { lines: [{ x: 60, y: 300, width: 200, height: 20, letters: 10 }], panels: [] };
  const view = { x: 100, y: 100, width: 960, height: 540 };
  expect(edgesOf(page).cutsOf(view)).toBe(1);
  expect(edgesOf(page).cutsOf({ ...view, x: 262 })).toBe(0);
  expect(edgesOf(page).cutsOf({ ...view, x: 64, y: 305 })).toBeGreaterThan(0);
  expect(shiftedView(view, { x: 500, y: 300, width: 10, height: 10 }, whole, page).x).toBeLessThan(
    65,
  );
  // A panel that would fit is missed twice as much as a line; a larger one can't be helped.
  const panels = [{ x: 0, y: 200, width: 400, height: 300 }];
  expect(edgesOf({ lines: [], panels }).cutsOf(view)).toBe(2);
  const large = { lines: [], panels: [{ ...panels[0]!, width: 1200 }] };
  expect(edgesOf(large).cutsOf(view)).toBe(0);
});

test('letters that are looked at and can’t be read cost, the more the smaller they are', () => {
  const page = {
    lines: [
      { x: 100, y: 100, width: 300, height: 20, letters: 11 },
      { x: 100, y: 130, width: 300, height: 14, letters: 8 },
      { x: 900, y: 900, width: 300, height: 8, letters: 4 },
    ],
  };
  expect(lettersIn(page, { x: 150, y: 110, width: 4, height: 4 })).toBe(8);
  expect(lettersIn(page, { x: 600, y: 500, width: 4, height: 4 })).toBeNull();
  const whole = { x: 0, y: 0, width: 1920, height: 1080 };
  const press = {
    ...{ footageId: 'f', kind: 'press' as const, start: 0, end: 1, gain: 1, weight: 8 },
    ...{ must: true, rect: { x: 900, y: 500, width: 4, height: 4 } },
  };
  const unread = (tiny: number) => costOfSeeing(press, whole, whole, 2, null, { tiny }).unread!;
  expect(unread(0)).toBe(0);
  expect(unread(2)).toBeCloseTo(2 * unread(1), 9);
});
