import { anchoredTo, pathAround } from './anchored';
import type { PointerLook } from './look';
import { pathOf, type Candidate, type Picture } from './pointer-path';
import type { PointerTrack } from '../telemetry/pointer-track';

/** Two looks whose tips are their corners. */
const LOOKS = [0, 1].map(() => ({ hotspot: { x: 0, y: 0 } })) as unknown as PointerLook[];

/** Twenty pictures in which a thing goes along while another one, which fits better, rests. */
const pictures: Picture[] = Array.from({ length: 20 }, (_, i) => ({
  ms: i * 40,
  candidates: [
    { look: 0, x: 100 + 5 * i, y: 50, misfit: 0.15 },
    { look: 1, x: 400, y: 300, misfit: 0.02 },
  ] satisfies Candidate[],
}));
const xs = (list: readonly Picture[]) => pathOf(list).map(({ at }) => at?.x ?? null);

test('what was taken for the pointer elsewhere is left out, and the right one is followed', () => {
  expect(xs(pictures)).toEqual(pictures.map(() => 400));
  const anchor = { ms: 410, x: 152, y: 52 };
  const anchored = anchoredTo(anchor, pictures, LOOKS, pathOf(pictures));
  expect(xs(anchored)).toEqual(pictures.map((_, i) => 100 + 5 * i));
  // What is known of the other pictures is not touched, but for the wrong look.
  expect(anchored[3]!.candidates).toEqual([pictures[3]!.candidates[0]]);
});

test('where nothing like a pointer is near, nothing changes', () => {
  const anchor = { ms: 410, x: 700, y: 20 };
  expect(anchoredTo(anchor, pictures, LOOKS, pathOf(pictures))).toBe(pictures);
  expect(anchoredTo(anchor, [], LOOKS, [])).toEqual([]);
});

const track = (hidden: PointerTrack['hidden']): PointerTrack => ({
  ...{ format: 'vistum-pointer', version: 2, width: 800, height: 400, events: [] },
  samples: Array.from({ length: 11 }, (_, i) => [i * 100, i * 10, 50] as const),
  ...(hidden ? { hidden } : {}),
});

test('the path around a point ends where the pointer goes out of sight, and with what was asked', () => {
  const anchor = { ms: 500, x: 50, y: 50 };
  const whole = pathAround(track(undefined), anchor, { from: 150, to: 880 })!;
  expect(whole[0]).toEqual([150, 15, 50]);
  expect(whole.at(-1)).toEqual([880, 88, 50]);
  const seen = [
    [0, 320],
    [700, 1000],
  ] as const;
  const part = pathAround(track(seen), anchor, { from: 0, to: 1000 })!;
  expect(part.map(([ms]) => ms)).toEqual([320, 400, 500, 600, 700]);
  // Hidden there, or found elsewhere, it was not found.
  expect(pathAround(track([[400, 600]]), anchor, { from: 0, to: 1000 })).toBeNull();
  expect(pathAround(track(seen), { ...anchor, x: 300 }, { from: 0, to: 1000 })).toBeNull();
});
