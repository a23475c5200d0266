import fc from 'fast-check';
import { Claims } from './claims';

/** What each thread got when they take turns in an order. */
function handOut(items: number, threads: number, order: (turn: number) => number): number[][] {
  const shared = Claims.memoryFor(items);
  const got: number[][] = Array.from({ length: threads }, () => []);
  const each = got.map(() => new Claims(shared));
  for (let turn = 0, left = items; left > 0; turn++) {
    const thread = order(turn) % threads;
    const item = each[thread]!.next(got[thread]!.at(-1) ?? null);
    if (item === null) break;
    got[thread]!.push(item);
    left--;
  }
  each.forEach((claims, i) => expect(claims.next(got[i]!.at(-1) ?? null)).toBeNull());
  return got;
}

test('each item is handed out once, whatever the order of the threads', () => {
  fc.assert(
    fc.property(
      fc.nat(40),
      fc.integer({ min: 1, max: 5 }),
      fc.infiniteStream(fc.nat(99)),
      (items, threads, order) => {
        const got = handOut(items, threads, () => order.next().value as number);
        expect(got.flat().sort((a, b) => a - b)).toEqual(
          Array.from({ length: items }, (_, i) => i),
        );
      },
    ),
  );
});

test('threads of one speed get one run of neighbours each; a quick one helps the slow one', () => {
  expect(handOut(8, 2, (turn) => turn)).toEqual([
    [0, 1, 2, 3],
    [4, 5, 6, 7],
  ]);
  const [slow, quick] = handOut(8, 2, (turn) => (turn === 0 ? 0 : 1));
  expect(slow).toEqual([0]);
  expect(quick!.length).toBe(7);
  expect(quick!.slice(0, 4)).toEqual([4, 5, 6, 7]);
});
