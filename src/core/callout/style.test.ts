import { UNPOSED } from './keyframes';
import fc from 'fast-check';
import { SOURCES } from '../edit/fixture';
import { isOf } from '../schema/check-plain';
import { checkOf } from '../schema/check';
import { kindOf, KINDS, type CalloutKindName } from './kinds';
import type { Callout } from './model';
import { CalloutStyle, inStyle, styleOf } from './style';

const NAMES = (Object.keys(KINDS) as CalloutKindName[]).filter((kind) => kindOf({ kind }).create);
const SPOT = {
  at: { x: 900, y: 500 },
  size: SOURCES.footage.screen!,
  frame: { width: 1920, height: 1080 },
};
const made = (kind: CalloutKindName, more: object = {}) =>
  ({
    ...kindOf({ kind }).create!(SPOT),
    ...{ id: 'c', start: 0, end: 100, anchor: { to: 'frame' }, ...UNPOSED },
    ...more,
  }) as Callout;

test('the style of any callout is one, and leaves what it was taken from as it is', () => {
  for (const kind of NAMES) {
    const style = styleOf(made(kind));
    expect(isOf(CalloutStyle, style)).toBe(true);
    expect(made(kind)).toMatchObject(inStyle(made(kind), style));
  }
});

test('any callout in any style is sound, and stays where and when it was', () => {
  fc.assert(
    fc.property(fc.constantFrom(...NAMES), fc.constantFrom(...NAMES), (from, to) => {
      const item = made(to);
      const change = inStyle(item, styleOf(made(from)));
      expect(checkOf(kindOf(item).schema)({ ...item, ...change })).toHaveProperty('value');
      for (const kept of ['id', 'start', 'end', 'anchor', 'rect', 'text', 'from', 'to', 'over'])
        expect(change).not.toHaveProperty(kept);
    }),
  );
});

test('a box takes an arrow’s line, and nothing that only an arrow has', () => {
  const arrow = made('arrow', { width: 21, color: '#123456', entrance: 'rise', pace: 1.5 });
  expect(inStyle(made('box'), styleOf(arrow))).toEqual({
    ...{ width: 21, color: '#123456', entrance: 'rise', exit: 'fade', pace: 1.5 },
    ...{ ease: 'even', outline: 0, edge: '#ffffff' },
  });
});

test('words keep coming as they can where a style has them drawn', () => {
  const change = inStyle(made('text'), styleOf(made('arrow', { entrance: 'draw' })));
  expect(change).not.toHaveProperty('entrance');
});

test('the share of a marker pen is no strength of a cover', () => {
  expect(inStyle(made('cover'), styleOf(made('highlight')))).not.toHaveProperty('strength');
});
