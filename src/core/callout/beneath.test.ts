import { rateFromNumber, secondsToTicks } from '../time/ticks';
import { colorOver, edgeFor, instantsOf, measured, worstContrast } from './beneath';
import { contrastRatio } from './contrast';
import { UNPOSED } from './keyframes';
import { kindOf, type CalloutKindName } from './kinds';
import type { Callout } from './model';

const SIZE = { width: 1920, height: 1080 };
const made = (kind: CalloutKindName, more: object = {}): Callout =>
  ({
    ...kindOf({ kind }).create!({ at: { x: 9, y: 9 }, size: SIZE, frame: SIZE }),
    ...{ id: 'c', start: secondsToTicks(1), end: secondsToTicks(5) },
    ...{ anchor: { to: 'frame' }, ...UNPOSED, ...more },
  }) as unknown as Callout;
const WHITE = [255, 255, 255] as const;
const BLACK = [0, 0, 0] as const;
const GREY = [119, 119, 119] as const;

test('only what has neither ground nor outline must be told from what lies beneath', () => {
  expect(colorOver(made('text'))).toBeNull();
  expect(colorOver(made('text', { ground: false, ink: '#123456' }))).toBe('#123456');
  expect(colorOver(made('text', { ground: false, outline: 2 }))).toBeNull();
  expect(colorOver(made('arrow', { color: '#ff0000' }))).toBe('#ff0000');
  expect(colorOver(made('arrow', { outline: 3 }))).toBeNull();
  expect(colorOver(made('highlight'))).toBeNull();
  expect(measured(made('text', { shadow: true }))).toMatchObject({ arrow: false, shadow: false });
});

test('the worst tenth counts, and a few spots do not', () => {
  const pixels = (white: number, grey: number) => [
    ...Array.from({ length: white }, () => WHITE),
    ...Array.from({ length: grey }, () => GREY),
  ];
  expect(worstContrast(pixels(100, 0), '#000000')).toBeCloseTo(21, 6);
  expect(worstContrast(pixels(95, 5), '#777777')).toBeCloseTo(
    contrastRatio('#ffffff', '#777777'),
    6,
  );
  expect(worstContrast(pixels(80, 20), '#777777')).toBeCloseTo(1, 6);
  expect(worstContrast([BLACK], '#000000')).toBe(1);
  expect(worstContrast([], '#000000')).toBeNull();
});

test('it is looked at while it is wholly there', () => {
  const rate = rateFromNumber(30);
  const callout = made('text', { pace: 0.5 });
  const instants = instantsOf(callout, rate);
  expect(instants).toHaveLength(5);
  expect(instants[0]).toBeGreaterThanOrEqual(secondsToTicks(1.5));
  expect(instants.at(-1)).toBeLessThanOrEqual(secondsToTicks(4.5));
  const short = made('text', { end: secondsToTicks(1) + 1 });
  for (const time of instantsOf(short, rate)) expect(time).toBeLessThanOrEqual(short.end);
});

test('an outline is as far from the colour as it can be', () => {
  expect(edgeFor('#ffffff')).toBe('#1e2a32');
  expect(edgeFor('#000000')).toBe('#ffffff');
});
