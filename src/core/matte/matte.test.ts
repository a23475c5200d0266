import fc from 'fast-check';
import { boxSums } from './box-mean';
import { weighEvidence } from './evidence';
import { MatteMaker } from './maker';
import { firstLooks, lookAt, MODEL_SIDE, modelInput, modelOutput } from './model-view';
import { matteSize, pictureIn, type SmallPicture } from './picture';
import { learnPlate, lightOf } from './plate';
import { enclosed, partsOf } from './regions';
import { EdgeSolver } from './solve';
import { steadyMatte } from './steady';

const W = 96;
const H = 72;
const N = W * H;

/** Numbers from 0 to 1 that are the same for a seed. */
const noise = (i: number, seed: number) =>
  (Math.imul(i * 2654435761 + seed * 40503, 2246822519) >>> 8) / (1 << 24);

/** A disc whose edge is a ramp of three pixels, 0 to 1. */
const disc = (cx: number, cy: number, r: number): Float32Array =>
  Float32Array.from({ length: N }, (_, i) => {
    const d = Math.hypot((i % W) + 0.5 - cx, Math.floor(i / W) + 0.5 - cy);
    return Math.min(1, Math.max(0, (r - d) / 3 + 0.5));
  });

/** A picture of a person of one colour before a wall with stripes, with noise. */
function shot(alpha: Float32Array, seed: number, light = 1, spread = 4): SmallPicture {
  const picture = pictureIn(new Uint8Array(3 * N), W, H);
  for (let i = 0; i < N; i++) {
    const stripe = (i % W) % 24 < 12 ? [150, 120, 134] : [90, 134, 124];
    const back = [16 + (stripe[0]! - 16) * light, stripe[1]!, stripe[2]!];
    const front = [16 + (120 - 16) * light, 104, 158];
    [picture.y, picture.u, picture.v].forEach((plane, k) => {
      const own = front[k]! * alpha[i]! + back[k]! * (1 - alpha[i]!);
      plane[i] = Math.round(own + (noise(i + k * N, seed) - 0.5) * (k ? spread / 2 : spread));
    });
  }
  return picture;
}

const EMPTY = new Float32Array(N);
const clear = (alpha: Float32Array) => Uint8Array.from(alpha, (a) => (a < 0.01 ? 1 : 0));
const plateOf = (count = 9) =>
  learnPlate(
    Array.from({ length: count }, (_, k) => shot(EMPTY, k + 50)),
    Array.from({ length: count }, () => new Uint8Array(N).fill(1)),
  );
const overlap = (a: ArrayLike<number>, b: ArrayLike<number>, half: number) => {
  let [both, any] = [0, 0];
  for (let i = 0; i < N; i++) {
    const [x, y] = [a[i]! > half, b[i]! > 0.5];
    if (x && y) both++;
    if (x || y) any++;
  }
  return both / any;
};

test('a matte has the shape of its recording, is small, and has even sides', () => {
  expect(matteSize({ width: 1920, height: 1080 })).toEqual({ width: 480, height: 270 });
  expect(matteSize({ width: 1080, height: 1920 })).toEqual({ width: 270, height: 480 });
  expect(matteSize({ width: 320, height: 180 })).toEqual({ width: 320, height: 180 });
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 9000 }), fc.integer({ min: 1, max: 9000 }), (w, h) => {
      const { width, height } = matteSize({ width: w, height: h });
      expect([width % 2, height % 2]).toEqual([0, 0]);
      expect(Math.max(width, height)).toBeLessThanOrEqual(480);
    }),
  );
});

test('sums over squares are those of adding up one by one', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 12 }),
      fc.integer({ min: 1, max: 12 }),
      fc.integer({ min: 0, max: 14 }),
      fc.nat(99),
      (w, h, radius, seed) => {
        const plane = Float32Array.from({ length: w * h }, (_, i) => noise(i, seed));
        const [into, scratch] = [new Float32Array(w * h), new Float32Array(w * h)];
        boxSums(plane, w, h, radius, into, scratch);
        for (let i = 0; i < w * h; i++) {
          let sum = 0;
          for (let k = 0; k < w * h; k++)
            if (
              Math.abs((k % w) - (i % w)) <= radius &&
              Math.abs(Math.floor(k / w) - Math.floor(i / w)) <= radius
            )
              sum += plane[k]!;
          expect(into[i]).toBeCloseTo(sum, 3);
        }
      },
    ),
  );
});

describe('regions', () => {
  const draw = (rows: readonly string[]) =>
    Uint8Array.from(rows.join(''), (sign) => (sign === '#' ? 1 : 0));
  const told = (marks: Uint8Array, width: number) =>
    [...marks].map((m, i) => (m ? '#' : '.') + ((i + 1) % width ? '' : '\n')).join('');

  test('what a person encloses is a hole; what is open to a side or above is none', () => {
    const rows = ['.......', '.#####.', '.#.#.#.', '.###.#.', '.#.#...', '.#.#.#.'];
    expect(told(enclosed(draw(rows), 7, 6), 7)).toBe(
      ['.......', '.......', '..#....', '.......', '..#....', '..#....', ''].join('\n'),
    );
    expect(enclosed(new Uint8Array(12), 4, 3).some((m) => m)).toBe(false);
    expect(enclosed(new Uint8Array(12).fill(1), 4, 3).some((m) => m)).toBe(false);
  });

  test('parts are told apart, with their sizes', () => {
    const { labels, sizes } = partsOf(draw(['##..', '...#', '#..#']), 4, 3);
    expect(sizes).toEqual([0, 2, 2, 1]);
    expect([...labels]).toEqual([1, 1, 0, 0, 0, 0, 0, 2, 3, 0, 0, 2]);
  });
});

describe('what lies behind', () => {
  test('is put together of what a person uncovers as they move, and known where they never were', () => {
    const people = [20, 34, 48, 62, 76].map((x) => disc(x, 40, 14));
    const plate = learnPlate(
      people.map((alpha, k) => shot(alpha, k)),
      people.map(clear),
    );
    const truth = shot(EMPTY, 1, 1, 0);
    for (let i = 0; i < N; i++) {
      expect(plate.known[i]).toBeGreaterThan(0);
      expect(Math.abs(plate.y[i]! - truth.y[i]!)).toBeLessThanOrEqual(4);
    }
    const never = learnPlate([shot(disc(48, 36, 14), 1)], [clear(disc(48, 36, 14))]);
    expect(never.known[36 * W + 48]).toBe(0);
  });

  test('is not relied on where it moves by itself', () => {
    const shots = Array.from({ length: 8 }, (_, k) => shot(EMPTY, k, 1, 160));
    const plate = learnPlate(
      shots,
      shots.map(() => new Uint8Array(N).fill(1)),
    );
    expect(plate.known.reduce((a, b) => a + b) / N).toBeLessThan(0.25);
  });

  test('its light is told to within two hundredths', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.6, max: 1.6, noNaN: true }), fc.nat(99), (light, seed) => {
        const person = disc(48, 40, 20);
        const found = lightOf(plateOf(), shot(person, seed, light), clear(person));
        // Luma ends at 255: what is brighter than that is cut off.
        expect(Math.abs(found / light - 1)).toBeLessThan(light > 1.5 ? 0.08 : 0.02);
      }),
      { numRuns: 20 },
    );
    expect(lightOf(plateOf(), shot(EMPTY, 1), new Uint8Array(N))).toBe(1);
  });
});

test('a person is told by their colour where the model doubts, and a shadow is none', () => {
  const person = disc(48, 40, 20);
  const odds = new Float32Array(N);
  const doubt = new Float32Array(N).fill(0.5);
  weighEvidence(shot(person, 3), plateOf(), doubt, 1, odds);
  const right = (wanted: number, is: (odd: number) => boolean) => {
    const all = [...odds].filter((_, i) => person[i] === wanted);
    return all.filter(is).length / all.length;
  };
  expect(right(1, (odd) => odd > 0)).toBeGreaterThan(0.99);
  expect(right(0, (odd) => odd < 0)).toBeGreaterThan(0.99);
  // A fifth less light on a part of the wall.
  const shaded = shot(EMPTY, 4);
  for (let i = 0; i < N / 3; i++) shaded.y[i] = 16 + (shaded.y[i]! - 16) * 0.85;
  weighEvidence(shaded, plateOf(), new Float32Array(N).fill(0.05), 1, odds);
  let told = 0;
  for (const odd of odds) if (odd > 0) told++;
  expect(told).toBeLessThan(N * 0.02);
});

test('shares along an outline are solved from the colours on both sides', () => {
  const truth = disc(48, 36, 22);
  const sure = Float32Array.from(truth, (a) => (a > 0.3 ? 0.97 : 0.03));
  for (const plate of [plateOf(), null]) {
    const into = new Float32Array(N);
    new EdgeSolver(W, H).solve(shot(truth, 9, 1, 2), plate, sure, 1, into);
    let [error, before, count] = [0, 0, 0];
    for (let i = 0; i < N; i++)
      if (truth[i]! > 0 && truth[i]! < 1) {
        error += Math.abs(into[i]! - truth[i]!);
        before += Math.abs(sure[i]! - truth[i]!);
        count++;
      }
    expect(error / count).toBeLessThan(plate ? 0.06 : 0.12);
    expect(error).toBeLessThan(before / 2);
  }
});

test('noise moves a steadied matte little, and what moves is taken over at once', () => {
  const still = shot(EMPTY, 1, 1, 0);
  const steadied = new Float32Array(N).fill(0.5);
  steadyMatte(still, still, new Float32Array(N).fill(0.6), steadied);
  expect(steadied[100]).toBeCloseTo(0.53, 5);
  const moved = shot(disc(48, 36, 60), 1, 1, 0);
  const next = new Float32Array(N).fill(1);
  steadyMatte(moved, still, next, steadied);
  expect(steadied[36 * W + 48]).toBe(1);
});

describe('what the model looks at', () => {
  test('comes back where it was', () => {
    const person = disc(40, 36, 18);
    const picture = shot(person, 1, 1, 0);
    fc.assert(
      fc.property(
        fc.record({ x: fc.integer({ min: -30, max: 40 }), y: fc.integer({ min: -30, max: 30 }) }),
        fc.integer({ min: 30, max: 120 }),
        ({ x, y }, side) => {
          const box = { x, y, width: side, height: side };
          const input = new Float32Array(MODEL_SIDE ** 2 * 3);
          modelInput(picture, box, input);
          // A model that takes for a person what is red.
          const answer = Float32Array.from({ length: MODEL_SIDE ** 2 }, (_, i) =>
            input[i * 3]! - input[i * 3 + 2]! > 0.25 ? 1 : 0,
          );
          const back = modelOutput(answer, box, picture);
          for (let i = 0; i < N; i++) {
            const [px, py] = [(i % W) + 0.5, Math.floor(i / W) + 0.5];
            const inside = px > x && px < x + side && py > y && py < y + side;
            if (!inside) expect(back[i]).toBe(0);
            else if (person[i] === 0 && back[i]! > 0.5)
              expect(Math.hypot(px - 40, py - 36)).toBeLessThan(22);
          }
          if (x < 15 && y < 10 && x + side > 65 && y + side > 60)
            expect(overlap(back, person, 0.5)).toBeGreaterThan(0.85);
        },
      ),
      { numRuns: 20 },
    );
  });

  test('is a square around the person, at the lower edge where they are cut off there', () => {
    const sitting = Float32Array.from({ length: N }, (_, i) => (i % W > 30 && i > N / 3 ? 1 : 0));
    const box = lookAt(sitting, { width: W, height: H })!;
    expect(box.width).toBe(box.height);
    expect(box.y + box.height).toBe(H);
    expect(lookAt(EMPTY, { width: W, height: H })).toBeNull();
    for (const look of firstLooks({ width: 90, height: 160 })) expect(look.width).toBe(look.height);
  });
});

describe('the maker', () => {
  const person = disc(48, 40, 20);
  /** A model that knows the middle well, has a hole in it, and sees a ghost in a corner. */
  const prior = Float32Array.from(person, (a, i) => {
    const [x, y] = [i % W, Math.floor(i / W)];
    if (Math.hypot(x - 50, y - 44) < 5) return 0.35;
    if (x > 90 && y < 3) return 0.8;
    return a > 0.9 ? 0.98 : a > 0.1 ? 0.6 : 0.02;
  });
  const made = (plate: ReturnType<typeof plateOf> | null, modelled: boolean) => {
    const maker = new MatteMaker({ width: W, height: H }, plate, modelled);
    const out = new Uint8Array(N);
    for (let n = 0; n < 4; n++) maker.next(shot(person, n, 1 - n * 0.05), prior, out);
    return out;
  };

  test.each([
    ['a model and what is behind', () => made(plateOf(), true)],
    ['a model alone', () => made(null, true)],
    ['a shot without them', () => made(plateOf(), false)],
  ])('finds a person by %s, without holes and ghosts', (_name, make) => {
    const out = make();
    expect(overlap(out, person, 127)).toBeGreaterThan(0.96);
    expect(out[44 * W + 50]).toBe(255);
    expect(out[1 * W + 94]).toBe(0);
  });
});
