import fc from 'fast-check';
import { CRISP_WEIGHTS } from '@/core/crisp/weights';
import { readModel } from '@/core/crisp/model';
import { crispReference } from './crisp-reference';
import type { KernelHeap } from './heap';
import { doubledPlane, noisyPlane, testHeap } from './testing';

const layers = readModel(CRISP_WEIGHTS);
let heap: KernelHeap;
beforeAll(async () => {
  heap = await testHeap();
});

/** Dark strokes on light, as letters have them. */
const strokes = (width: number, height: number): Uint8Array =>
  Uint8Array.from({ length: width * height }, (_, i) =>
    (i % width) % 7 === 3 || Math.floor(i / width) % 9 === 4 ? 30 : 230,
  );

test('luma is doubled as the reference says, to the bit, in tiles of any size', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 23 }),
      fc.integer({ min: 1, max: 19 }),
      fc.integer({ min: 1, max: 24 }),
      fc.nat(1000),
      fc.constantFrom(noisyPlane, strokes),
      (width, height, tile, seed, make) => {
        const plane = make(width, height, seed);
        expect(doubledPlane(heap, plane, width, true, tile)).toEqual(
          crispReference(layers, plane, width, height),
        );
      },
    ),
    { numRuns: 40 },
  );
});

test('without a model it is Catmull-Rom', () => {
  const plane = noisyPlane(31, 17, 5);
  const last = layers.length - 1;
  const silent = layers.map((layer, i) =>
    i < last ? layer : { ...layer, biases: new Int32Array(4), weights: layer.weights.map(() => 0) },
  );
  expect(doubledPlane(heap, plane, 31, false, 9)).toEqual(crispReference(silent, plane, 31, 17));
});

test('one colour stays that colour, whichever it is', () => {
  for (const grey of [0, 16, 90, 126, 180, 235, 255]) {
    const plane = new Uint8Array(12 * 12).fill(grey);
    const made = doubledPlane(heap, plane, 12, true, 12);
    expect(Math.max(...made) - Math.min(...made)).toBeLessThanOrEqual(1);
    expect(Math.abs(made[0]! - grey)).toBeLessThanOrEqual(1);
  }
});

test('a model with too few bytes or too many is told', () => {
  expect(() => readModel(btoa('short'))).toThrow(RangeError);
  expect(() => readModel(btoa(`${atob(CRISP_WEIGHTS)}more`))).toThrow(RangeError);
});
