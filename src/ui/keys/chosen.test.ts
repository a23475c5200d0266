import { RECORD_KEYS, recordKeys } from '../record/actions';
import type { Keyed } from './chosen';

const SPLIT: Keyed = { id: 'split', label: 'Split', keys: ['B'] };
const PLAY: Keyed = { id: 'play', label: 'Play', keys: ['Space'] };

/** The module in a browser that keeps what is given. */
function inBrowser(texts: Record<string, string>) {
  const stored = new Map(Object.entries(texts));
  Object.assign(globalThis, {
    window: globalThis,
    localStorage: {
      getItem: (key: string) => stored.get(key) ?? null,
      setItem: (key: string, text: string) => void stored.set(key, text),
    },
  });
  let loaded!: typeof import('./chosen');
  jest.isolateModules(() => {
    // oxlint-disable-next-line typescript/no-require-imports
    loaded = require('./chosen') as typeof import('./chosen');
  });
  return { ...loaded, stored };
}

afterEach(() => {
  Reflect.deleteProperty(globalThis, 'window');
  Reflect.deleteProperty(globalThis, 'localStorage');
});

test('a chosen key is kept and there again; what was not chosen stays as it comes', () => {
  const first = inBrowser({});
  expect(first.withChosenKeys(SPLIT)).toBe(SPLIT);
  first.chooseKeys('split', ['Mod+B']);
  const again = inBrowser(Object.fromEntries(first.stored));
  expect(again.withChosenKeys(SPLIT).keys).toEqual(['Mod+B']);
  expect(again.withChosenKeys(PLAY)).toBe(PLAY);
  again.chooseKeys('split', null);
  expect(inBrowser(Object.fromEntries(again.stored)).withChosenKeys(SPLIT)).toBe(SPLIT);
});

test('something may have no key at all, and everything listed is set back together', () => {
  const { chooseKeys, restoreKeys, withChosenKeys } = inBrowser({});
  chooseKeys('split', []);
  chooseKeys('play', ['P']);
  expect(withChosenKeys(SPLIT).keys).toEqual([]);
  restoreKeys(['split']);
  expect(withChosenKeys(SPLIT)).toBe(SPLIT);
  expect(withChosenKeys(PLAY).keys).toEqual(['P']);
});

test.each(['{', '3', '{"split":"B"}', '{"split":[5]}'])('%s is no choice of keys', (text) =>
  expect(inBrowser({ 'vistum-keys': text }).withChosenKeys(SPLIT)).toBe(SPLIT),
);

test('keys of recording that were chosen before they were kept with the others still hold', () => {
  const { useChosenKeys } = inBrowser({ 'record-keys': '{"pen":"F7"}' });
  const { pen, mark } = recordKeys(useChosenKeys.getState());
  expect([pen, mark]).toEqual([['F7'], ['Alt+M']]);
});

test('the page is made as the server makes it, whatever was chosen', () => {
  const { useChosenKeys } = inBrowser({ 'vistum-keys': '{"split":["F7"]}' });
  expect(useChosenKeys.getInitialState()).toEqual({});
  expect(useChosenKeys.getState().split).toEqual(['F7']);
});

test('every action of recording has a key of its own', () => {
  const keys = RECORD_KEYS.flatMap((item) => item.keys);
  expect(new Set(keys).size).toBe(keys.length);
});
