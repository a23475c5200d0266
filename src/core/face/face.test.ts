import fc from 'fast-check';
import { decodeFaces, FACE_PLACES } from './decode';
import { settleFace, shownFace } from './settle';

const PLACES = FACE_PLACES.reduce((a, b) => a + b);
const nothing = () => ({
  scores: new Float32Array(PLACES).fill(-8),
  boxes: new Float32Array(PLACES * 16),
});

test('the model looks at 896 places', () => {
  expect(FACE_PLACES).toEqual([512, 384]);
});

test('a face is where its place and its box say, once, though several places see it', () => {
  const { scores, boxes } = nothing();
  // Both ways of the cell in column 3, row 5 of the fine grid, and one of its neighbour.
  const cell = (5 * 16 + 3) * 2;
  for (const [i, dx] of [
    [cell, 10],
    [cell + 1, 11],
    [cell + 2, -6],
  ] as const) {
    scores[i] = 3;
    boxes.set([dx, -4, 60, 80], i * 16);
  }
  const faces = decodeFaces(scores, boxes);
  expect(faces).toHaveLength(1);
  expect(faces[0]!.x).toBeCloseTo(3.5 / 16 + 10 / 256 - 30 / 256, 5);
  expect(faces[0]!.y).toBeCloseTo(5.5 / 16 - 4 / 256 - 40 / 256, 5);
  expect(faces[0]!.height).toBeCloseTo(80 / 256, 5);
  expect(faces[0]!.sure).toBeCloseTo(0.953, 2);
});

test('two faces apart from each other are two, the surer first; doubt is none', () => {
  const { scores, boxes } = nothing();
  for (const [i, score] of [
    [10, 1],
    [512 + 300, 4],
    [200, 0.2],
  ] as const) {
    scores[i] = score;
    boxes.set([0, 0, 40, 40], i * 16);
  }
  expect(decodeFaces(scores, boxes).map(({ sure }) => sure > 0.9)).toEqual([true, false]);
});

test('a recording’s face is that of most pictures, whoever comes in once', () => {
  const face = (x: number, side = 60) => ({ x, y: 40, width: side, height: side });
  const size = { width: 320, height: 180 };
  const found = [[face(100)], [face(104)], [face(96), face(250, 20)], [], [face(10, 90)]];
  const box = settleFace(found, size)!;
  expect((box.x + box.width / 2) * 320).toBeCloseTo(130, 0);
  expect(settleFace([[], [], [], [face(100)], [], []], size)).toBeNull();
  expect(settleFace([], size)).toBeNull();
});

test('the shape shows the face with room above, and never more than there is', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 0.9, noNaN: true }),
      fc.double({ min: 0, max: 0.9, noNaN: true }),
      fc.double({ min: 0.02, max: 1, noNaN: true }),
      (x, y, height) => {
        const { center, crop } = shownFace({ x, y, width: height / 2, height });
        expect(crop).toBeGreaterThanOrEqual(0.2);
        expect(crop).toBeLessThanOrEqual(1);
        for (const n of [center.x, center.y]) {
          expect(n).toBeGreaterThanOrEqual(0);
          expect(n).toBeLessThanOrEqual(1);
        }
        // Above its middle, so that there is room for forehead and hair.
        if (y + height / 2 < 0.9) expect(center.y).toBeLessThan(y + height / 2 + 0.006);
      },
    ),
  );
});
