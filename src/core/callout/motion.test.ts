import fc from 'fast-check';
import { frameDuration, rateFromNumber, secondsToTicks } from '../time/ticks';
import { appearanceAt, fullySeenFrom, MOTIONS, type Ease, type Moving } from './motion';
import { partOfPaths } from './part-of-path';

const at = secondsToTicks;
const item = (more: Partial<Moving> = {}): Moving => ({
  ...{ start: at(1), end: at(5), entrance: 'fade', exit: 'fade', pace: 0.5, ease: 'soft' },
  ...more,
});
const RATE = rateFromNumber(30);

describe('how a callout comes and goes', () => {
  test('it fades in over its pace, stays, and fades out', () => {
    const presence = (seconds: number) => appearanceAt(item(), at(seconds)).presence;
    expect([0.9, 1, 1.25, 1.5, 3, 4.75, 5].map(presence)).toEqual([0, 0, 0.5, 1, 1, 0.5, 0]);
  });

  test('it is drawn and taken back, grows and shrinks, rises and sinks', () => {
    const drawn = item({ entrance: 'draw', exit: 'draw', ease: 'even' });
    expect(appearanceAt(drawn, at(1.25))).toMatchObject({ drawn: 0.5, presence: 1 });
    expect(appearanceAt(drawn, at(4.875))).toMatchObject({ drawn: 0.25, presence: 1 });
    const grown = item({ entrance: 'grow', exit: 'grow' });
    expect(appearanceAt(grown, at(1.25)).size).toBeCloseTo(0.875, 9);
    expect(appearanceAt(grown, at(1)).size).toBe(0);
    const risen = item({ entrance: 'rise', exit: 'rise' });
    expect(appearanceAt(risen, at(1)).below).toBeGreaterThan(0.01);
    expect(appearanceAt(risen, at(2))).toMatchObject({ below: 0, presence: 1 });
  });

  test('it goes evenly, ever more slowly, or beyond its place and back', () => {
    const sizeAt = (ease: Ease, share: number) =>
      appearanceAt(item({ entrance: 'grow', ease }), at(1 + share / 2)).size;
    expect(sizeAt('even', 0.5)).toBeCloseTo(0.5, 9);
    expect(sizeAt('soft', 0.5)).toBeGreaterThan(0.8);
    const swing = Array.from({ length: 101 }, (_, i) => sizeAt('swing', i / 100));
    expect(Math.max(...swing)).toBeCloseTo(1.1, 2);
    expect(swing.at(-1)).toBeCloseTo(1, 9);
    // Lines are never longer than they are.
    const lines = item({ entrance: 'draw', ease: 'swing' });
    expect(appearanceAt(lines, at(1.35)).drawn).toBe(1);
  });

  test('one that comes at once is wholly there in its first picture', () => {
    expect(appearanceAt(item({ entrance: 'none' }), at(1))).toMatchObject({
      presence: 1,
      drawn: 1,
    });
  });

  test('it never jumps, and goes as it came with time run back', () => {
    const times = fc.tuple(
      fc.integer({ min: 1, max: 400 }),
      fc.double({ min: 0.05, max: 5, noNaN: true }),
    );
    fc.assert(
      fc.property(times, fc.constantFrom(...MOTIONS), fc.nat(1000), (times, motion, share) => {
        const [length, pace] = times;
        const end = at(1) + at(length / 10);
        const moving = item({ end, pace, entrance: motion, exit: motion });
        const after = Math.round(((end - at(1)) * share) / 1001);
        const before = appearanceAt(moving, end - after);
        const now = appearanceAt(moving, at(1) + after);
        if (after > 0)
          for (const key of ['presence', 'drawn', 'size', 'below'] as const)
            expect(now[key]).toBeCloseTo(before[key], 5);
        // In the middle of its time it is there, however short that is.
        expect(appearanceAt(moving, Math.floor((at(1) + end) / 2))).toMatchObject({
          ...{ presence: 1, drawn: 1, size: 1, below: 0 },
        });
      }),
    );
  });

  test('the first picture in which it is wholly there is told', () => {
    for (const entrance of MOTIONS) {
      const moving = item({ entrance });
      const time = fullySeenFrom(moving, RATE);
      expect(time % frameDuration(RATE)).toBe(0);
      expect(appearanceAt(moving, time)).toMatchObject({ presence: 1, drawn: 1, size: 1 });
    }
    expect(fullySeenFrom(item({ entrance: 'none' }), RATE)).toBe(at(1));
  });
});

describe('the beginning of lines', () => {
  const lengthOf = (paths: readonly (readonly { x: number; y: number }[])[]) =>
    paths.reduce(
      (sum, path) =>
        sum +
        path.slice(1).reduce((s, p, i) => s + Math.hypot(p.x - path[i]!.x, p.y - path[i]!.y), 0),
      0,
    );
  const point = fc.record({
    x: fc.double({ min: -900, max: 900, noNaN: true }),
    y: fc.double({ min: -900, max: 900, noNaN: true }),
  });

  test('is as long as its share, and lies on them', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(point, { minLength: 1, maxLength: 6 }), { minLength: 1, maxLength: 4 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (paths, share) => {
          const part = partOfPaths(paths, share);
          expect(lengthOf(part)).toBeCloseTo(lengthOf(paths) * share, 4);
          part.forEach((path, i) =>
            path.slice(0, -1).forEach((p, j) => expect(p).toEqual(paths[i]![j])),
          );
        },
      ),
    );
  });

  test('all of them are all of them', () => {
    const paths = [
      [{ x: 0, y: 0 }],
      [
        { x: 1, y: 1 },
        { x: 4, y: 5 },
      ],
    ];
    expect(partOfPaths(paths, 1)).toEqual(paths);
    expect(partOfPaths(paths, 0.4)).toEqual([
      [{ x: 0, y: 0 }],
      [
        { x: 1, y: 1 },
        { x: expect.closeTo(2.2, 9) as number, y: expect.closeTo(2.6, 9) as number },
      ],
    ]);
  });
});
