import { LAYOUTS } from '@/core/layout/built-in';
import { freeName, presetFile, readPresetFile } from './preset-file';

const presets = [
  { id: 'a', name: 'Mine', value: LAYOUTS.side },
  { id: 'b', name: 'Yours', value: LAYOUTS.corner },
];

test('what was saved comes back from its file, without its ids', () => {
  const read = readPresetFile('layout', presetFile('layout', presets));
  expect(read).toEqual(presets.map(({ name, value }) => ({ name, value })));
});

test.each([
  ['no JSON', 'hello', 'can’t be read'],
  ['nothing of Vistum', '{"a":1}', 'nothing saved by Vistum'],
  ['a list', '[]', 'nothing saved by Vistum'],
  ['another kind', presetFile('taste', presets), 'another kind (taste)'],
  [
    'something without a name',
    presetFile('layout', presets).replace('"Mine"', 'null'),
    'Nothing was taken over',
  ],
])('%s is refused with a sentence', (_name, text, sentence) => {
  expect(() => readPresetFile('layout', text)).toThrow(sentence);
});

test('nothing that is there is replaced', () => {
  expect(freeName('Mine', new Set(['Mine', 'Mine 2']))).toBe('Mine 3');
  expect(freeName('New', new Set(['Mine']))).toBe('New');
});
