import { Type, type TObject } from '@sinclair/typebox';
import { checkOf } from './check';
import { Id, oneOf, strict } from './parts';
import {
  colorSetting,
  defaultsOf,
  numberSetting,
  readChoices,
  readNumberSetting,
  settingsOf,
  shareSetting,
  switchSetting,
} from './setting';
import { DEFAULT_KEY, DEFAULT_LOOK } from '../edit/settings';
import { FootageKey } from '../key/model';
import { LOOKS } from '../pointer/looks';
import { newLook } from '../pointer/model';
import { DEFAULT_PLACEMENT } from '../project/create';
import { FootageLook, PresenterPlacement } from '../project/model';

const Lamp = strict({
  id: Id,
  height: numberSetting({ label: 'Height', unit: 'px', min: 1, max: 900, step: 2, fallback: 40 }),
  warm: shareSetting('Warmth', 0.5),
  glass: colorSetting('Glass', '#aabbcc'),
  lit: switchSetting('Lit', true),
  shade: oneOf(['round', 'long'], { title: 'Shade', labels: ['Round', 'Long'], default: 'long' }),
  base: strict({
    width: numberSetting({ label: 'Base', unit: 'px', min: 1, max: 9, step: 1, fallback: 3 }),
  }),
});

test('a schema says how its settings are shown, and nothing of what is no setting', () => {
  expect(settingsOf(Lamp).map(([name]) => name)).toEqual([
    'height',
    'warm',
    'glass',
    'lit',
    'shade',
  ]);
  expect(readNumberSetting(Lamp.properties.height)).toEqual({
    ...{ label: 'Height', unit: 'px', min: 1, max: 900, step: 2, fallback: 40, factor: 1 },
  });
  expect(readNumberSetting(Lamp.properties.warm)).toMatchObject({ unit: '%', factor: 100, max: 1 });
  expect(readChoices(Lamp.properties.shade)).toEqual([
    ['round', 'Round'],
    ['long', 'Long'],
  ]);
  expect(() => readNumberSetting(Type.Number())).toThrow(RangeError);
});

test('defaults are those of the schema, parts within too; what has none is left out', () => {
  expect(defaultsOf(Lamp)).toEqual({
    height: 40,
    warm: 0.5,
    glass: '#aabbcc',
    lit: true,
    shade: 'long',
    base: { width: 3 },
  });
});

test.each<[string, TObject, object]>([
  ['halo', LOOKS.halo.schema, newLook('halo')],
  ['dim around', LOOKS.dim.schema, newLook('dim')],
  ['presenter', PresenterPlacement, DEFAULT_PLACEMENT],
  ['key', FootageKey, { footageId: 'f', ...DEFAULT_KEY }],
  ['look', FootageLook, { footageId: 'f', ...DEFAULT_LOOK }],
])(
  'the defaults of %s pass its own check, and every slider lies in what is allowed',
  (_, schema, defaults) => {
    expect(checkOf(schema)(defaults)).toEqual({ value: defaults });
    for (const [, part] of settingsOf(schema)) {
      if (part.type !== 'number') continue;
      const { min, max, step, fallback } = readNumberSetting(part);
      expect(min).toBeGreaterThanOrEqual(part.minimum);
      expect(max).toBeLessThanOrEqual(part.maximum);
      expect(step).toBeLessThanOrEqual((max - min) / 4);
      expect(fallback >= min && fallback <= max).toBe(true);
    }
  },
);

test('a check answers each fault with its place, and the first only where that is asked', () => {
  const wrong = { ...defaultsOf(Lamp), id: '', height: 0, hat: 1 };
  expect(checkOf(Lamp)(wrong)).toEqual({
    faults: expect.arrayContaining([
      { path: '/', message: 'has the unknown property "hat"' },
      { path: '/height', message: 'must be >= 1' },
    ]),
  });
  expect(checkOf(Lamp, { all: false })(wrong)).toHaveProperty('faults.length', 1);
});
