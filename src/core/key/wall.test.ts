import { parseColor, rgbToYuv, type Rgb } from './color';
import { estimateWall, type ChromaPicture } from './wall';
import { sampleWall } from './wall-map';

const [W, H] = [320, 180];

/**
 * A wall whose light falls off to the right by so much, with a person of a colour between two
 * columns.
 */
function scene(
  falloff: number,
  person: { color: string; from: number; to: number } | null,
  wall: Rgb = [0x2f, 0x9a, 0x4b],
): ChromaPicture {
  const [cw, ch] = [W / 2, H / 2];
  const picture = {
    y: new Uint8Array(W * H),
    u: new Uint8Array(cw * ch),
    v: new Uint8Array(cw * ch),
    width: W,
    height: H,
  };
  const at = (x: number, y: number) => {
    if (person && x >= person.from && x < person.to && y > 30)
      return rgbToYuv(parseColor(person.color));
    const light = 1 - (falloff * x) / W;
    return rgbToYuv([wall[0] * light, wall[1] * light, wall[2] * light]);
  };
  for (let y = 0; y < H; y++) for (let x = 0; x < W; x++) picture.y[y * W + x] = at(x, y)[0];
  for (let y = 0; y < ch; y++)
    for (let x = 0; x < cw; x++) {
      const [, u, v] = at(x * 2, y * 2);
      // A little noise.
      picture.u[y * cw + x] = u + ((x * 7 + y * 3) % 3) - 1;
      picture.v[y * cw + x] = v + ((x * 5 + y * 11) % 3) - 1;
    }
  return picture;
}
const whole = { x: 0, y: 0, width: W, height: H };

test('the wall’s light is found where it falls off, behind a person from other pictures, and guessed where it is never seen', () => {
  const person = { color: '#c98d6c', from: 100, to: 180 };
  const moved = { ...person, from: 140, to: 220 };
  const found = estimateWall([scene(0.3, person), scene(0.3, moved)])!;
  const truth = scene(0.3, null);
  const u = sampleWall(found.wall, 'u', whole, whole, W / 2, H / 2);
  const v = sampleWall(found.wall, 'v', whole, whole, W / 2, H / 2);
  const y = sampleWall(found.wall, 'y', whole, whole, W, H);
  for (const x of [20, 110, 160, 210, 300]) {
    const i = 45 * (W / 2) + x / 2;
    expect(Math.hypot(u[i]! - truth.u[i]!, v[i]! - truth.v[i]!)).toBeLessThan(4);
    expect(Math.abs(y[90 * W + x]! - truth.y[90 * W + x]!)).toBeLessThan(8);
  }
});

test('thresholds part wall and person, for green and for blue', () => {
  for (const [wall, color] of [
    [[0x2f, 0x9a, 0x4b], '#c98d6c'],
    [[0x2c, 0x50, 0xb8], '#d8b090'],
  ] as const) {
    const { tolerance, softness } = estimateWall([
      scene(0.2, { color, from: 100, to: 200 }, wall),
    ])!;
    const [, ku, kv] = rgbToYuv(wall);
    const [, pu, pv] = rgbToYuv(parseColor(color));
    const length = Math.hypot(ku - 128, kv - 128);
    const away = length - ((pu - 128) * (ku - 128) + (pv - 128) * (kv - 128)) / length;
    // Noise of one code value stays wall, the person is opaque.
    expect(tolerance).toBeGreaterThan(1);
    expect(tolerance).toBeLessThan(length * 0.31);
    expect(tolerance + softness).toBeLessThan(away);
  }
});

test('a grey border, or one of many colours, is no wall', () => {
  expect(estimateWall([scene(0, null, [0x80, 0x80, 0x80])])).toBeNull();
  const many = scene(0, null);
  many.u.forEach((_, i) => (many.u[i] = (i * 97) % 256));
  many.v.forEach((_, i) => (many.v[i] = (i * 57) % 256));
  expect(estimateWall([many])).toBeNull();
});

test('a map is flat between equal cells, straight between two, and a part of it is what the whole has there', () => {
  const map = { columns: 2, rows: 1, y: [100, 200], u: [90, 90], v: [80, 120] };
  const row = sampleWall(map, 'y', whole, whole, W, 1);
  expect(row[0]).toBe(100);
  expect(row[W - 1]).toBe(200);
  expect(Math.abs(row[W / 2]! - 150)).toBeLessThanOrEqual(1);
  expect(new Set(sampleWall(map, 'u', whole, whole, W / 2, H / 2))).toEqual(new Set([90]));
  const part = { x: 100, y: 20, width: 60, height: 40 };
  const all = sampleWall(map, 'v', whole, whole, W, H);
  const cut = sampleWall(map, 'v', whole, part, part.width, part.height);
  for (let y = 0; y < part.height; y += 7)
    for (let x = 0; x < part.width; x += 5)
      expect(cut[y * 60 + x]).toBe(all[(y + 20) * W + x + 100]);
});
