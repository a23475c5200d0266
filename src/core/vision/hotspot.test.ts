import fc from 'fast-check';
import { hotspotOf } from './hotspot';
import { filled } from './mask';
import { POINTER_DRAWINGS, type ShapeDrawing } from './pointer-shapes';
import { edgesOf, holds } from './polygon';
import { fitShape } from './shape-fit';
import { ARROW, BEAM } from './testing';

const AROUND = 6;

/** A drawing as a mask, so high and so far off whole samples, and where its hotspot lies. */
function drawn({ polygons, hotspot }: ShapeDrawing, height: number, dx: number, dy: number) {
  const { left, top, right, bottom } = edgesOf(polygons);
  const scale = height / (bottom - top);
  const width = Math.ceil((right - left) * scale) + 1 + 2 * AROUND;
  const rows = Math.ceil(height) + 1 + 2 * AROUND;
  const mask = new Uint8Array(width * rows);
  for (let y = 0; y < rows; y++)
    for (let x = 0; x < width; x++) {
      const u = (x + 0.5 - AROUND - dx) / scale + left;
      const v = (y + 0.5 - AROUND - dy) / scale + top;
      if (holds(polygons, u, v)) mask[y * width + x] = 1;
    }
  const spot = {
    x: (hotspot.x - left) * scale + AROUND + dx,
    y: (hotspot.y - top) * scale + AROUND + dy,
  };
  return { mask, width, height: rows, spot };
}

const heights = fc.double({ min: 18, max: 48, noNaN: true });
const offset = fc.double({ min: 0, max: 1, noNaN: true });
const drawings = fc.constantFrom(...POINTER_DRAWINGS);

const POINTED = ['arrow', 'hand'];

test('each drawing is told by its outline, and its hotspot to hundredths of its height', () => {
  fc.assert(
    fc.property(drawings, heights, offset, offset, (drawing, height, dx, dy) => {
      const { spot, ...seen } = drawn(drawing, height, dx, dy);
      const { form, hotspot } = hotspotOf(seen.mask, seen.width, seen.height);
      // Crosses and double arrows are much alike where they are small, and have the same hotspot.
      const alike = drawing.form === 'other' || height < 26;
      if (POINTED.includes(drawing.form) || !alike) expect(form).toBe(drawing.form);
      expect(POINTED.includes(form)).toBe(POINTED.includes(drawing.form));
      const apart = Math.hypot(hotspot.x - spot.x, hotspot.y - spot.y);
      expect(apart).toBeLessThan(1.2 + 0.06 * height);
    }),
    { numRuns: 60 },
  );
});

test('rows of a text cursor or a double arrow that are not seen shift its middle little', () => {
  const symmetric = POINTER_DRAWINGS.filter(({ form }) => ['text', 'across'].includes(form));
  fc.assert(
    fc.property(fc.constantFrom(...symmetric), heights, fc.boolean(), (drawing, height, above) => {
      const { spot, ...seen } = drawn(drawing, height, 0, 0);
      const gone = Math.floor(0.12 * height);
      const whole = seen.mask.slice();
      const first = Math.floor(whole.indexOf(1) / seen.width);
      const last = Math.floor(whole.lastIndexOf(1) / seen.width);
      if (above) whole.fill(0, 0, (first + gone) * seen.width);
      else whole.fill(0, (last + 1 - gone) * seen.width);
      const fit = fitShape(whole, seen)!;
      expect(Math.abs(fit.hotspot.x - spot.x)).toBeLessThan(1.5);
      expect(Math.abs(fit.hotspot.y - spot.y)).toBeLessThan(1 + 0.09 * height);
    }),
    { numRuns: 60 },
  );
});

const maskOf = (drawing: readonly string[]) => {
  const [width, height] = [drawing[0]!.length + 4, drawing.length + 4];
  const mask = new Uint8Array(width * height);
  drawing.forEach((row, y) =>
    [...row].forEach((mark, x) => {
      if (mark !== '.') mask[(y + 2) * width + x + 2] = 1;
    }),
  );
  return { mask: filled(mask, width, height), width, height };
};

test('what a pointer points with: the tip of an arrow, the middle of a text cursor', () => {
  const arrow = maskOf(ARROW);
  const found = hotspotOf(arrow.mask, arrow.width, arrow.height);
  expect(found.form).toBe('arrow');
  expect(Math.hypot(found.hotspot.x - 2, found.hotspot.y - 2)).toBeLessThan(2);
  const beam = maskOf(BEAM);
  const { form, hotspot } = hotspotOf(beam.mask, beam.width, beam.height);
  expect(form).toBe('text');
  expect(Math.hypot(hotspot.x - 5.5, hotspot.y - 11.5)).toBeLessThan(0.8);
});

test('an arrow whose tip is not seen has it where it would be; nothing has its middle', () => {
  const [tailed] = POINTER_DRAWINGS;
  const { spot, mask, width, height } = drawn(tailed!, 30, 0, 0);
  mask.fill(0, 0, (AROUND + 7) * width);
  const { form, hotspot } = hotspotOf(mask, width, height);
  expect(form).toBe('arrow');
  expect(Math.hypot(hotspot.x - spot.x, hotspot.y - spot.y)).toBeLessThan(5);
  expect(hotspotOf(new Uint8Array(25), 5, 5)).toEqual({
    form: 'other',
    hotspot: { x: 2.5, y: 2.5 },
  });
});
