import { pointerSpan } from '../pointer/model';
import { LAYOUTS } from '../layout/built-in';
import fc from 'fast-check';
import { counter, emptyProject, facts } from '../edit/fixture';
import { changeKey } from '../edit/settings';
import { placeFootage } from '../edit/place';
import { planFrame } from '../frame/plan-frame';
import { readScale } from '../frame/reading';
import { placePresenter, placeScreen } from '../layout/rectangles';
import { DEFAULT_PLACEMENT } from '../project/create';
import { filterTable, isCopy, squareTable } from './filter';
import { judgeScale, magnification, sharpLimit, snapRestingView, wholeView } from './sharpness';

const BOTH = { screen: true, presenter: true };

const FULL_HD = { width: 1920, height: 1080 };

describe('filter tables', () => {
  const ranges = fc.record({
    length: fc.integer({ min: 1, max: 400 }),
    from: fc.double({ min: 0, max: 0.9, noNaN: true }),
    share: fc.double({ min: 0.02, max: 1, noNaN: true }),
    count: fc.integer({ min: 1, max: 500 }),
    mirror: fc.boolean(),
  });

  test('weights add up to one exactly, so that flat areas stay flat; taps lie within the source or weigh nothing', () => {
    fc.assert(
      fc.property(ranges, ({ length, from, share, count, mirror }) => {
        const { taps, starts, weights } = filterTable(
          length,
          from * length,
          Math.max(0.01, share * (1 - from) * length),
          count,
          mirror,
        );
        for (let i = 0; i < count; i++) {
          let sum = 0;
          for (let k = 0; k < taps; k++) {
            const weight = weights[i * taps + k]!;
            sum += weight;
            if (starts[i]! + k >= length) expect(weight).toBe(0);
          }
          expect(sum).toBe(16384);
          expect(starts[i]).toBeGreaterThanOrEqual(0);
        }
      }),
    );
  });

  test('a 1:1 range on whole samples is a pure copy, one on half samples is not', () => {
    expect(isCopy(filterTable(100, 20, 40, 40))).toEqual({ first: 20 });
    expect(isCopy(filterTable(100, 0, 100, 100))).toEqual({ first: 0 });
    expect(isCopy(filterTable(100, 20.5, 40, 40))).toBeNull();
    expect(isCopy(filterTable(100, 20, 40, 41))).toBeNull();
  });

  test('weights of a square keep flat areas flat and are those of both ways', () => {
    const phases = 8;
    const table = squareTable(phases);
    for (let down = 0; down <= phases; down++)
      for (let across = 0; across <= phases; across++) {
        const at = (d: number, a: number) => {
          const from = (d * (phases + 1) + a) * 16;
          return [...table.subarray(from, from + 16)];
        };
        const square = at(down, across);
        expect(square.reduce((sum, weight) => sum + weight, 0)).toBe(16384);
        const [rows, columns] = [at(down, 0), at(0, across)];
        square.forEach((weight, k) => {
          const [j, i] = [Math.floor(k / 4), k % 4];
          const both = (rows[j * 4 + 1]! * columns[4 + i]!) / 16384;
          expect(Math.abs(weight - both)).toBeLessThanOrEqual(4);
        });
        // What is turned over has its weights turned over, but for what rounding lost.
        const over = at(phases - down, phases - across).reverse();
        square.forEach((weight, k) => expect(Math.abs(weight - over[k]!)).toBeLessThanOrEqual(8));
      }
    expect(table[5]).toBe(16384);
  });

  test('mirroring reverses the order', () => {
    const plain = filterTable(50, 3.3, 30, 20);
    const mirrored = filterTable(50, 3.3, 30, 20, true);
    expect([...mirrored.starts].reverse()).toEqual([...plain.starts]);
  });
});

describe('sharpness', () => {
  test('known values', () => {
    expect(sharpLimit({ width: 2560, height: 1440 }, FULL_HD)).toBeCloseTo(4 / 3);
    expect(sharpLimit(FULL_HD, FULL_HD)).toBe(1);
    expect(sharpLimit({ width: 960, height: 720 }, FULL_HD)).toBeCloseTo(2 / 3);
    const judged = (crisp: boolean) => [0.75, 1, 1.2, 2, 2.1].map((s) => judgeScale(s, crisp));
    expect(judged(false)).toEqual(['sharp', 'exact', 'soft', 'soft', 'soft']);
    expect(judged(true)).toEqual(['sharp', 'exact', 'crisp', 'crisp', 'soft']);
  });

  test('the whole view has the frame’s shape and holds the footage', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 16, max: 5000 }),
        fc.integer({ min: 16, max: 5000 }),
        (width, height) => {
          const view = wholeView({ width, height }, FULL_HD);
          expect(view.width / view.height).toBeCloseTo(16 / 9);
          expect(view.x).toBeLessThanOrEqual(1e-9);
          expect(view.y).toBeLessThanOrEqual(1e-9);
          expect(magnification(view, { width, height }, FULL_HD)).toBeCloseTo(1);
        },
      ),
    );
  });

  test('a resting view at the limit falls on whole even pixels', () => {
    const view = snapRestingView({ x: 301.3, y: 99.7, width: 1919, height: 1079.4 }, FULL_HD);
    expect(view).toEqual({ x: 300, y: 100, width: 1920, height: 1080 });
    const other = { x: 1.5, y: 2.5, width: 1500, height: 843.75 };
    expect(snapRestingView(other, FULL_HD)).toBe(other);
  });
});

describe('placement in the output', () => {
  test('a 4:3 recording gets bars at the sides and keeps its shape', () => {
    const placed = placeScreen(
      wholeView({ width: 960, height: 720 }, FULL_HD),
      { width: 960, height: 720 },
      FULL_HD,
    )!;
    expect(placed.destination).toEqual({ x: 240, y: 0, width: 1440, height: 1080 });
    expect(placed.source.width / placed.source.height).toBeCloseTo(4 / 3, 2);
  });

  test('destinations are whole, even and inside; sources are inside the footage', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 50, max: 4000 }),
        fc.integer({ min: 50, max: 4000 }),
        fc.constantFrom(FULL_HD, { width: 1280, height: 720 }, { width: 1080, height: 1920 }),
        fc.constantFrom('top-left', 'bottom-right', 'top-right', 'bottom-left'),
        fc.constantFrom('circle', 'rectangle'),
        (width, height, output, corner, shape) => {
          const footage = { width, height };
          const all = [
            placeScreen(wholeView(footage, output), footage, output),
            placePresenter(
              LAYOUTS.corner,
              BOTH,
              { ...DEFAULT_PLACEMENT, corner, shape, size: 0.25 } as never,
              { x: 0, y: 0, ...footage },
              output,
            ),
            placePresenter(
              LAYOUTS.presenter,
              BOTH,
              DEFAULT_PLACEMENT,
              { x: 0, y: 0, ...footage },
              output,
            ),
          ];
          for (const placed of all) {
            if (!placed) continue;
            for (const n of Object.values(placed.destination)) expect(Math.abs(n % 2)).toBe(0);
            const { source } = placed;
            expect(source.x).toBeGreaterThanOrEqual(-1e-6);
            expect(source.y).toBeGreaterThanOrEqual(-1e-6);
            expect(source.x + source.width).toBeLessThanOrEqual(width + 1e-6);
            expect(source.y + source.height).toBeLessThanOrEqual(height + 1e-6);
          }
        },
      ),
    );
  });
});

test('the plan of a frame lists screen, halo and presenter from back to front, and the reading agrees with it', () => {
  const sources = {
    footage: {
      screen: facts('screen', 'screen', 20),
      camera: facts('camera', 'presenter', 20, { width: 1280, height: 720 }),
    },
    pointers: {
      screen: {
        format: 'vistum-pointer',
        version: 1,
        width: 2560,
        height: 1440,
        samples: [[0, 1280, 720]],
        events: [],
      },
    },
  } as const;
  const project = emptyProject();
  placeFootage(project, sources.footage.screen, 0, counter());
  placeFootage(project, sources.footage.camera, 0, counter());
  project.pointer.push(
    pointerSpan('p', { start: 0, end: 1e9 }, [
      { kind: 'halo', size: 100, color: '#ffcc00', softness: 0.5, opacity: 0.5, grows: true },
    ]),
  );
  changeKey(project, 'camera', { color: '#2f9a4b' });
  const plan = planFrame(project, sources, 1000, FULL_HD);
  expect(plan.layers.map((l) => l.kind)).toEqual(['video', 'drawing', 'video', 'drawing']);
  expect(plan.layers[1]).toMatchObject({
    mark: { kind: 'disc', center: { x: 960, y: 540 }, diameter: 100 },
  });
  expect(readScale(project, sources, 1000)).toMatchObject({
    magnification: 1,
    scale: 0.75,
    sharpness: 'sharp',
  });
  // Half the size: everything in the same places.
  expect(planFrame(project, sources, 1000, { width: 960, height: 540 }).layers[1]).toMatchObject({
    mark: { center: { x: 480, y: 270 }, diameter: 50 },
  });
  project.layouts.push({ id: 'l', start: 0, end: 1e9, layout: LAYOUTS.presenter });
  expect(planFrame(project, sources, 1000, FULL_HD).layers.map((l) => l.kind)).toEqual(['video']);
  expect(readScale(project, sources, 1000)).toBeNull();
});
