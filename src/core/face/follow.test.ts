import fc from 'fast-check';
import { counter, emptyProject, SOURCES } from '../edit/fixture';
import { placeFootage } from '../edit/place';
import { changeLook } from '../edit/settings';
import { frontmost, presenterOf, sceneAt } from '../scene/scene';
import { secondsToTicks } from '../time/ticks';
import { faceShiftAt, followFace, type FaceLook } from './follow';
import { largestFace, type FaceBox } from './settle';

const SIZE = { width: 0.12, height: 0.2 };
const USUAL: FaceBox = { x: 0.44, y: 0.3, ...SIZE };

/** Looks three times a second at a face that is where a function says, away from its usual place. */
const looks = (
  seconds: number,
  at: (second: number) => readonly [x: number, y: number] | null,
): FaceLook[] =>
  Array.from({ length: seconds * 3 }, (_, i) => {
    const away = at(i / 3);
    const face = away && { ...SIZE, x: USUAL.x + away[0], y: USUAL.y + away[1] };
    return { ms: Math.round((i * 1000) / 3), face };
  });

test('a face that trembles, nods or glances away for a moment is not followed', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: -0.03, max: 0.03, noNaN: true }), { minLength: 9 }),
      (n) => {
        const at = (second: number) => [n[Math.round(second * 3) % n.length]!, 0] as const;
        expect(followFace(looks(20, at), USUAL)).toEqual([]);
      },
    ),
  );
  const nod = looks(20, (s) => [0, s > 8 && s < 8.5 ? 0.15 : 0]);
  expect(followFace(nod, USUAL)).toEqual([]);
});

test('one that goes and stays is followed once, and back again', () => {
  const path = followFace(
    looks(40, (s) => (s > 10 && s < 25 ? [0.2, -0.05] : [0, 0])),
    USUAL,
  );
  expect(path.map(([, x, y]) => [x, y])).toEqual([
    [0.2, -0.05],
    [0, 0],
  ]);
  // It begins soon after the face went.
  for (const [i, went] of [10, 25].entries()) {
    expect(path[i]![0]).toBeGreaterThanOrEqual(went * 1000 - 400);
    expect(path[i]![0]).toBeLessThanOrEqual(went * 1000 + 1000);
  }
});

test('a wanderer is followed in moves that come one after the other and end within reach', () => {
  const at = (s: number) => [0.25 * Math.sin(s / 4), 0.04 * Math.cos(s / 3)] as const;
  const path = followFace(looks(60, at), USUAL);
  expect(path.length).toBeGreaterThan(3);
  for (const [i, [ms]] of path.entries())
    if (i && path[i - 1]![0]) expect(ms - path[i - 1]![0]).toBeGreaterThanOrEqual(1600);
  const misses = Array.from({ length: 600 }, (_, i) => {
    const shift = faceShiftAt(path, i * 100);
    return Math.abs(shift.x - at(i / 10)[0]);
  });
  const still = Array.from({ length: 600 }, (_, i) => Math.abs(at(i / 10)[0]));
  const mean = (list: number[]) => list.reduce((a, b) => a + b) / list.length;
  expect(mean(misses)).toBeLessThan(mean(still) / 2);
});

test('who is not seen is waited for, and somebody else is not followed', () => {
  const away = looks(30, (s) => (s > 10 && s < 20 ? null : [0, 0]));
  expect(followFace(away, USUAL)).toEqual([]);
  const other = looks(30, (s) => (s > 10 && s < 20 ? [0.3, 0] : [0, 0])).map(({ ms, face }) => ({
    ms,
    face: face && face.x > 0.6 ? { ...face, width: 0.05, height: 0.08 } : face,
  }));
  expect(followFace(other, USUAL)).toEqual([]);
  expect(followFace([], USUAL)).toEqual([]);
});

test('what is shown goes over without a jump, from one rest to the next', () => {
  const path = [
    [2000, 0.2, 0.1],
    [9000, -0.1, 0],
  ] as [number, number, number][];
  expect(faceShiftAt(path, 0)).toEqual({ x: 0, y: 0 });
  expect(faceShiftAt(path, 8999)).toEqual({ x: 0.2, y: 0.1 });
  expect(faceShiftAt(path, 60_000).x).toBeCloseTo(-0.1, 9);
  expect(faceShiftAt([], 500)).toEqual({ x: 0, y: 0 });
  for (let ms = 0; ms < 12_000; ms += 20) {
    const [a, b] = [faceShiftAt(path, ms), faceShiftAt(path, ms + 20)];
    expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThan(0.01);
  }
});

test('the largest of some faces, in shares of the picture', () => {
  const size = { width: 200, height: 100 };
  expect(largestFace([], size)).toBeNull();
  const faces = [
    { x: 10, y: 10, width: 10, height: 12 },
    { x: 100, y: 20, width: 40, height: 50 },
  ];
  expect(largestFace(faces, size)).toEqual({ x: 0.5, y: 0.2, width: 0.2, height: 0.5 });
});

test('the presenter’s shape shows another part of the recording, but never one beyond its edge', () => {
  const project = emptyProject();
  placeFootage(project, SOURCES.footage.camera!, 0, counter());
  const shown = (seconds: number) => {
    const scene = sceneAt(project, SOURCES, secondsToTicks(seconds));
    const { place } = presenterOf(scene, frontmost(scene, 'presenter')!)!;
    return place;
  };
  const before = shown(5);
  changeLook(project, 'camera', {
    face: [
      [1000, 0.05, 0],
      [8000, 1, 1],
    ],
  });
  expect(shown(0.5).source).toEqual(before.source);
  const { source, destination } = shown(5);
  expect(destination).toEqual(before.destination);
  expect(source.x - before.source.x).toBeCloseTo(0.05 * 1280, 6);
  const last = shown(12).source;
  expect(last.x + last.width).toBeCloseTo(1280, 6);
  expect(last.y + last.height).toBeCloseTo(720, 6);
});
