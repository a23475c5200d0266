import fc from 'fast-check';
import { Pacing } from './pacing';

describe('which pictures of a source are written', () => {
  test('one that was left out is written at its own time once there is room', () => {
    const pacing = new Pacing(30);
    expect(pacing.offer(0, false)).toBe(0);
    expect(pacing.offer(200, true)).toBeNull();
    expect(pacing.again(400, true)).toBeNull();
    expect(pacing.again(600, false)).toBe(200);
    expect(pacing.again(620, false)).toBeNull();
  });

  test('one that stands is written twice a second', () => {
    const pacing = new Pacing(30);
    pacing.offer(0, false);
    expect([300, 499, 500, 900, 1000].map((now) => pacing.again(now, false))).toEqual([
      ...[null, null, 500, null, 1000],
    ]);
  });

  test('a fast source is thinned, and its last picture is never lost', () => {
    const pacing = new Pacing(30);
    const written = Array.from({ length: 100 }, (_, i) => pacing.offer(i * 4, false));
    expect(written.filter((t) => t !== null).length).toBeLessThan(18);
    expect(written[99] ?? pacing.again(430, false)).toBe(396);
  });

  test('at the end one that was left out has its own time, and lasts', () => {
    const pacing = new Pacing(20);
    pacing.offer(0, false);
    expect(pacing.end(40)).toEqual([]);
    pacing.offer(300, true);
    expect(pacing.end(1000)).toEqual([300, 950]);
    expect(pacing.end(1010)).toEqual([960]);
    pacing.offer(1020, true);
    expect(pacing.end(1030)).toEqual([1020]);
  });

  test('times go upwards, stay within the rate, and never lie after what is seen', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            gap: fc.double({ min: 0.1, max: 300, noNaN: true }),
            full: fc.boolean(),
            comes: fc.boolean(),
          }),
          { minLength: 1, maxLength: 80 },
        ),
        (steps) => {
          const pacing = new Pacing(30);
          let now = 0;
          let last = -1;
          let count = 0;
          for (const { gap, full, comes } of steps) {
            now += gap;
            const time = comes ? pacing.offer(now, full) : pacing.again(now, full);
            if (time === null) continue;
            expect(full).toBe(false);
            expect(time).toBeGreaterThan(last);
            expect(time).toBeLessThanOrEqual(Math.max(now, last + 1));
            last = time;
            count++;
          }
          expect(count).toBeLessThanOrEqual((now * 30) / 1000 + 4);
        },
      ),
    );
  });
});
