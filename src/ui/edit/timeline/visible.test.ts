import { createClip, createLane } from '@/core/project/create';
import type { Lane } from '@/core/project/model';
import { secondsToTicks } from '@/core/time/ticks';
import { sightOf } from './geometry';
import { piecesInSight, spansInSight, withoutBuried } from './visible';

/** A lane of clips of so many seconds, one after the other. */
function laneOf(seconds: readonly number[]): Lane {
  let start = 0;
  const clips = seconds.map((s, i) => {
    const clip = createClip({
      id: `c${i}`,
      footageId: 'f',
      start,
      duration: secondsToTicks(s),
      source: 0,
      link: null,
    });
    start += clip.duration;
    return clip;
  });
  return { ...createLane('screen'), clips };
}

test('only clips in sight are drawn, however many there are', () => {
  const lane = laneOf(Array.from({ length: 3000 }, () => 2));
  const pieces = piecesInSight(lane, sightOf(60_000, 1000), 20, null);
  expect(pieces.length).toBeLessThan(60);
  expect(pieces[0]).toMatchObject({ kind: 'clip' });
  const [first, last] = [pieces[0], pieces.at(-1)].map((p) =>
    p?.kind === 'clip' ? lane.clips[p.index]!.start : -1,
  ) as [number, number];
  expect(first).toBeLessThanOrEqual(secondsToTicks(60_000 / 20));
  expect(last).toBeGreaterThan(secondsToTicks(60_900 / 20));
});

test('clips too narrow to be worked on are one piece; all of two hours are a handful', () => {
  expect(
    piecesInSight(laneOf([5, 0.2, 0.2, 0.2, 5]), sightOf(0, 1000), 20, null).map((p) => p.kind),
  ).toEqual(['clip', 'crumbs', 'clip']);
  const all = piecesInSight(
    laneOf(Array.from({ length: 3000 }, () => 2.4)),
    sightOf(0, 1130),
    0.15,
    null,
  );
  expect(all).toMatchObject([{ kind: 'crumbs', first: 0, last: 2999 }]);
});

test('a closed group is one block, an open one its clips', () => {
  const lane = laneOf([3, 3, 3, 3]);
  lane.clips[1]!.group = lane.clips[2]!.group = 'g';
  const kinds = (open: string | null) =>
    piecesInSight(lane, sightOf(0, 1000), 20, open).map((p) => p.kind);
  expect(kinds(null)).toEqual(['clip', 'group', 'clip']);
  expect(kinds('g')).toEqual(['clip', 'clip', 'clip', 'clip']);
});

describe('spans in sight', () => {
  const second = secondsToTicks(1);
  const spans = (many: number) =>
    Array.from({ length: many }, (_, i) => ({
      start: i * 10 * second,
      end: (i * 10 + 4) * second,
    }));

  test('a few stand by themselves, however narrow', () => {
    const few = spans(20);
    expect(spansInSight(few, sightOf(0, 1000), 0.5)).toEqual({ alone: few, crumbs: [] });
  });

  test('of very many only those that can be worked on do; none is lost', () => {
    const many = [...spans(500), { start: 0, end: 4000 * second }];
    const { alone, crumbs } = spansInSight(many, sightOf(0, 1000), 0.2);
    expect([alone.length, crumbs.length]).toEqual([1, 500]);
    // Closer up they come out again.
    expect(spansInSight(many, sightOf(0, 1000), 20).crumbs).toEqual([]);
  });
});

test('of spans that lie over each other, what shows is drawn, and what is buried is not', () => {
  const second = secondsToTicks(1);
  const span = (id: string, start: number, end: number) => ({
    ...{ id, start: Math.round(start * second), end: Math.round(end * second) },
  });
  const list = [
    span('first', 0, 10),
    span('under it', 0.1, 10.1),
    span('begins later', 0.5, 9),
    span('ends later', 0.6, 12),
    span('elsewhere', 0.6, 12),
  ];
  const drawn = withoutBuried(list, 10, ({ id }) => id !== 'elsewhere').map(({ id }) => id);
  expect(drawn).toEqual(['first', 'begins later', 'ends later', 'elsewhere']);
  // Closer, everything shows.
  expect(withoutBuried(list, 100, () => true)).toHaveLength(4);
});
