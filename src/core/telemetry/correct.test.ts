import fc from 'fast-check';
import { correctPointer, dropCorrections } from '../edit/corrections';
import { EditError } from '../edit/error';
import { emptyProject, SOURCES } from '../edit/fixture';
import type { PathCorrection } from '../project/parts/correction';
import { trackOf } from '../project/track-of';
import { confidenceAt, correctTrack, unsureStretches } from './correct';
import type { PointerSample, PointerTrack } from './pointer-track';
import { isHiddenAt, pointerAt } from './sample';

const track: PointerTrack = {
  ...{ format: 'vistum-pointer', version: 2, width: 1920, height: 1080, source: 'found' },
  samples: Array.from({ length: 101 }, (_, i): PointerSample => [i * 100, i * 10, 500, 0.9]),
  hidden: [[4000, 5000]],
  events: [
    { t: 2000, type: 'down', button: 0, confidence: 0.6 },
    { t: 2100, type: 'up', button: 0, confidence: 0.6 },
  ],
};
const ascending = ({ samples }: PointerTrack) =>
  samples.every(([t], i) => i === 0 || t > samples[i - 1]![0]);

const ms = fc.integer({ min: 0, max: 9000 });
const correction: fc.Arbitrary<PathCorrection> = fc.oneof(
  fc
    .tuple(
      ms,
      fc.array(fc.tuple(fc.integer({ min: 1, max: 300 }), fc.nat(1900), fc.nat(1000)), {
        minLength: 1,
        maxLength: 6,
      }),
    )
    .map(([from, steps]) => {
      let t = from;
      const points = steps.map(([by, x, y]): [number, number, number] => [(t += by), x, y]);
      return { kind: 'path' as const, points };
    }),
  fc
    .tuple(ms, fc.integer({ min: -200, max: 200 }), fc.integer({ min: 1, max: 3000 }))
    .map(([at, by, reach]) => ({ kind: 'shift' as const, at, dx: by, dy: -by, reach })),
  fc.tuple(ms, fc.integer({ min: 1, max: 2000 })).map(([from, length]) => ({
    ...{ kind: 'hidden' as const, from, to: from + length },
  })),
  fc.tuple(ms, fc.boolean()).map(([at, on]) => ({ kind: 'press' as const, at, on })),
);

test('whatever is mended, times go on, what was found stays as it is, and the last word counts', () => {
  const before = JSON.stringify(track);
  fc.assert(
    fc.property(fc.array(correction, { maxLength: 6 }), correction, (first, last) => {
      const corrected = correctTrack(track, [...first, last]);
      expect(ascending(corrected)).toBe(true);
      expect(corrected.source).toBe('corrected');
      const { events } = corrected;
      expect(events.every(({ t }, i) => i === 0 || t >= events[i - 1]!.t)).toBe(true);
      if (last.kind === 'path')
        for (const [t, x, y] of last.points) {
          expect(pointerAt(corrected, t).x).toBeCloseTo(x, 6);
          expect(pointerAt(corrected, t).y).toBeCloseTo(y, 6);
        }
      if (last.kind === 'hidden') {
        expect(isHiddenAt(corrected, last.from)).toBe(true);
        expect(isHiddenAt(corrected, (last.from + last.to) / 2)).toBe(true);
      }
      if (last.kind === 'shift') {
        const was = pointerAt(correctTrack(track, first), last.at);
        const is = pointerAt(corrected, last.at);
        expect(is.x - was.x).toBeCloseTo(last.dx, 6);
        expect(is.y - was.y).toBeCloseTo(last.dy, 6);
      }
      if (last.kind === 'press') {
        const near = corrected.events.some((e) => e.type === 'down' && e.t === last.at);
        expect(near || !last.on).toBe(true);
      }
    }),
  );
  expect(JSON.stringify(track)).toBe(before);
});

test('a path that is drawn counts from its first to its last point, and only there', () => {
  const corrected = correctTrack(track, [
    {
      kind: 'path',
      points: [
        [4200, 10, 20],
        [4600, 30, 40],
      ],
    },
  ]);
  expect(pointerAt(corrected, 4400)).toEqual({ x: 20, y: 30 });
  expect(pointerAt(corrected, 4100)).toEqual(pointerAt(track, 4100));
  expect(pointerAt(corrected, 4700)).toEqual(pointerAt(track, 4700));
  // It is seen where it was drawn, and still hidden beside.
  expect([4100, 4300, 4599, 4601].map((t) => isHiddenAt(corrected, t))).toEqual([
    ...[true, false, false, true],
  ]);
});

test('a point that is moved takes its surroundings along, less the further away', () => {
  const corrected = correctTrack(track, [{ kind: 'shift', at: 1000, dx: 50, dy: 0, reach: 400 }]);
  const by = (t: number) => pointerAt(corrected, t).x - pointerAt(track, t).x;
  expect([by(1000), by(600), by(1400), by(500)].map((d) => Math.round(d))).toEqual([50, 0, 0, 0]);
  expect(by(1100)).toBeGreaterThan(by(1300));
});

test('presses are set and taken back by hand, and go with a pointer that is hidden', () => {
  const downs = (t: PointerTrack) =>
    t.events.flatMap((e) => (e.type === 'down' ? [[e.t, e.confidence ?? 1]] : []));
  expect(downs(correctTrack(track, [{ kind: 'press', at: 2050, on: false }]))).toEqual([]);
  expect(downs(correctTrack(track, [{ kind: 'press', at: 7000, on: true }]))).toEqual([
    ...[
      [2000, 0.6],
      [7000, 1],
    ],
  ]);
  expect(downs(correctTrack(track, [{ kind: 'hidden', from: 1900, to: 2200 }]))).toEqual([]);
});

test('what is not sure is told, gaps and doubts that follow on one another as one', () => {
  const doubted = {
    ...track,
    samples: track.samples.map(([t, x, y]): PointerSample => [
      ...([t, x, y] as const),
      t > 6000 && t <= 7000 ? 0.2 : 0.9,
    ]),
    hidden: [
      [4000, 5000],
      [8000, 8100],
    ] as const,
  };
  expect(unsureStretches(doubted)).toEqual([
    { from: 4000, to: 5000 },
    { from: 6100, to: 7000 },
  ]);
  expect([confidenceAt(doubted, 4500), confidenceAt(doubted, 6500)]).toEqual([0, 0.2]);
});

test('corrections are kept in the project, and taken back stretch by stretch', () => {
  const project = emptyProject();
  const sources = { footage: SOURCES.footage, pointers: { screen: track } };
  expect(trackOf(project, sources, 'screen')).toBe(track);
  correctPointer(project, 'screen', { kind: 'hidden', from: 100, to: 400 });
  correctPointer(project, 'screen', { kind: 'shift', at: 8000, dx: 5, dy: 5, reach: 100 });
  const mended = trackOf(project, sources, 'screen')!;
  expect(isHiddenAt(mended, 200)).toBe(true);
  // Found anew, it is mended anew.
  const again = { ...track, samples: track.samples.map(([t, x]): PointerSample => [t, x, 9]) };
  const rerun = trackOf(project, { ...sources, pointers: { screen: again } }, 'screen')!;
  expect(isHiddenAt(rerun, 200)).toBe(true);
  expect(pointerAt(rerun, 8000).y).toBe(14);
  dropCorrections(project, 'screen', 0, 500);
  expect(project.corrections[0]?.made).toHaveLength(1);
  expect(() => dropCorrections(project, 'screen', 0, 500)).toThrow(EditError);
  dropCorrections(project, 'screen', 8050, 8060);
  expect(project.corrections).toEqual([]);
});

test('where nothing was found, a path that is drawn is all there is', () => {
  const project = emptyProject();
  const points: [number, number, number][] = [
    [1000, 5, 5],
    [2000, 9, 9],
  ];
  correctPointer(project, 'screen', { kind: 'path', points });
  const drawn = trackOf(project, SOURCES, 'screen')!;
  expect([500, 1500, 2500].map((t) => isHiddenAt(drawn, t))).toEqual([true, false, true]);
  expect(() =>
    correctPointer(project, 'screen', { kind: 'path', points: [...points].reverse() }),
  ).toThrow(EditError);
});

test('what is moved again at the same time is one move', () => {
  const project = emptyProject();
  const shift = { kind: 'shift' as const, at: 500, dx: 1, dy: 2, reach: 400 };
  for (let i = 0; i < 3; i++) correctPointer(project, 'screen', { ...shift });
  correctPointer(project, 'screen', { ...shift, at: 900 });
  expect(project.corrections[0]?.made).toEqual([
    { ...shift, dx: 3, dy: 6 },
    { ...shift, at: 900 },
  ]);
});
