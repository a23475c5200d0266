import { gradeMatte, type KeyedPicture } from './grade';
import { gradeLines } from './grade-lines';

const W = 160;
const H = 90;
const N = W * H;
const WALL = { u: -0.6, v: -0.8 };

/** A person as a box, with an outline of a width, and grey colours. */
function keyed(more: { soft?: number; specks?: number; hole?: number; green?: number } = {}) {
  const { soft = 1, specks = 0, hole = 0, green = 0 } = more;
  const alpha = new Uint8Array(N);
  const u = new Uint8Array(N / 4).fill(128);
  const v = new Uint8Array(N / 4).fill(128);
  for (let i = 0; i < N; i++) {
    const [x, y] = [i % W, Math.floor(i / W)];
    const inside = Math.min(x - 40, 120 - x, y - 20);
    alpha[i] = Math.round(255 * Math.min(1, Math.max(0, inside / soft + 0.5)));
    if (Math.abs(inside) < 4) {
      const at = (y >> 1) * (W / 2) + (x >> 1);
      u[at] = 128 + Math.round((green * WALL.u * alpha[i]!) / 255);
      v[at] = 128 + Math.round((green * WALL.v * alpha[i]!) / 255);
    }
    if (x < 20 && i % 50 < specks) alpha[i] = 60;
    if (Math.hypot(x - 80, y - 55) < hole) alpha[i] = 40;
  }
  return { width: W, height: H, alpha, u, v, scale: 2 } satisfies KeyedPicture;
}

test('a clean key is good in all, and its outline is as wide as it is', () => {
  const grade = gradeMatte(keyed({ soft: 4 }), WALL)!;
  expect(grade).toMatchObject({ noise: 0, holes: 0 });
  // Three or four pixels of the picture lie between, each two of the recording.
  expect(grade.edge).toBeGreaterThan(4);
  expect(grade.edge).toBeLessThan(9);
  expect(grade.spill).toBeLessThan(1);
  const lines = gradeLines(gradeMatte(keyed(), WALL)!, true);
  expect(lines.map(({ what }) => what)).toEqual(['noise', 'holes', 'edge', 'spill']);
  expect(lines.every(({ mark, advice }) => mark === 'good' && advice === null)).toBe(true);
});

test.each([
  ['noise', { specks: 6 }],
  ['holes', { hole: 9 }],
  ['edge', { soft: 12 }],
  ['spill', { green: 24 }],
] as const)('%s is told by itself, with what to do about it', (what, fault) => {
  const [clean, bad] = [gradeMatte(keyed(), WALL)!, gradeMatte(keyed(fault), WALL)!];
  expect(bad[what]).toBeGreaterThan(clean[what] + 0.005);
  const line = gradeLines(bad, true).find((one) => one.what === what)!;
  expect(line.mark).not.toBe('good');
  expect(line.advice).toMatch(/\w/);
});

test('more of a fault is no better grade', () => {
  const holes = [0, 4, 8, 12].map((hole) => gradeMatte(keyed({ hole }), WALL)!.holes);
  expect([...holes].sort((a, b) => a - b)).toEqual(holes);
  const noise = [0, 2, 8, 20].map((specks) => gradeMatte(keyed({ specks }), WALL)!.noise);
  expect([...noise].sort((a, b) => a - b)).toEqual(noise);
});

test('nobody is no grade; without a wall there is no light of it', () => {
  expect(gradeMatte({ ...keyed(), alpha: new Uint8Array(N) }, WALL)).toBeNull();
  const grade = gradeMatte(keyed({ green: 30 }), null)!;
  expect(grade.spill).toBe(0);
  expect(gradeLines(grade, false).map(({ what }) => what)).toEqual(['noise', 'holes', 'edge']);
});
