import { alongLines, drawnBetween, linesWithin } from './draw';
import { UNPOSED } from './keyframes';
import { kindOf, type CalloutKindName } from './kinds';
import { pictureAt } from './kinds/picture';
import type { Callout } from './model';

const SPOT = {
  at: { x: 900, y: 500 },
  size: { width: 2560, height: 1440 },
  frame: { width: 1920, height: 1080 },
};
const made = (kind: CalloutKindName): Callout =>
  ({
    ...(kindOf({ kind }).create?.(SPOT) ?? pictureAt(SPOT, 's', { width: 400, height: 200 })),
    ...{ id: 'c', start: 0, end: 9, anchor: { to: 'frame' }, ...UNPOSED },
  }) as unknown as Callout;
const [FROM, TO] = [
  { x: 700, y: 600 },
  { x: 500, y: 300 },
];
const drawn = (kind: CalloutKindName, to = TO) =>
  drawnBetween(made(kind), FROM, to, { dx: -150, dy: -225 });

test('what is drawn lies between where it was begun and where it ended', () => {
  expect(drawn('arrow')).toEqual({ from: FROM, to: TO });
  for (const kind of ['cover', 'highlight', 'spotlight', 'lens'] as const)
    expect(drawn(kind)).toEqual({ rect: { x: 500, y: 300, width: 200, height: 300 } });
  expect(drawn('text')).toEqual({ tip: FROM, offset: { dx: -150, dy: -225 } });
  expect(drawn('count')).toEqual({ at: TO });
  // As flat as a line, it is a rectangle all the same.
  expect(drawn('cover', { x: 500, y: 600 })).toMatchObject({ rect: { width: 200, height: 8 } });
});

test('a picture is drawn in its own shape, to the side to which the hand went', () => {
  expect(drawn('picture')).toEqual({ rect: { x: 100, y: 300, width: 600, height: 300 } });
  expect(drawn('picture', { x: 900, y: 610 })).toEqual({
    rect: { x: 700, y: 600, width: 200, height: 100 },
  });
});

test('a marker pen finds the lines of text that it is drawn over', () => {
  const text = [100, 130, 160, 190].map((y) => ({ x: 50, y, width: 400, height: 20 }));
  const lines = linesWithin(text, { x: 100, y: 125, width: 200, height: 60 });
  expect(lines).toHaveLength(2);
  const room = 20 * 0.18;
  expect(lines[0]).toEqual({
    ...{ x: 100 - room, y: 130 - room },
    ...{ width: 200 + 2 * room, height: 20 + 2 * room },
  });
  // Drawn flat over one it is that one; beside all of them there is none.
  expect(linesWithin(text, { x: 100, y: 163, width: 90, height: 4 })).toHaveLength(1);
  expect(linesWithin(text, { x: 500, y: 100, width: 90, height: 100 })).toEqual([]);
  expect(linesWithin(text, { x: 100, y: 152, width: 90, height: 4 })).toEqual([]);
  const { rect } = alongLines(lines);
  const near = (n: number) => expect.closeTo(n, 6) as number;
  expect(rect).toEqual({
    ...{ x: near(96.4), y: near(126.4), width: near(207.2), height: near(57.2) },
  });
});
