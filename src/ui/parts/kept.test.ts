import { Type } from '@sinclair/typebox';
import { keep, keepText, kept, keptText } from './kept';

const store = new Map<string, string>();
const use = (storage: Partial<Storage>) => Object.assign(globalThis, { localStorage: storage });
beforeEach(() => {
  store.clear();
  use({
    getItem: (key) => store.get(key) ?? null,
    setItem: (key, value) => void store.set(key, value),
  });
});
const Sizes = Type.Array(Type.Number({ minimum: 0 }));

test('what was kept is there again, if it is still what is asked for', () => {
  expect(kept('sizes', Sizes)).toBeNull();
  keep('sizes', [1, 2]);
  expect(kept('sizes', Sizes)).toEqual([1, 2]);
  expect(kept('sizes', Type.String())).toBeNull();
  for (const nonsense of ['{', '[-1]', '["1"]', 'null']) {
    keepText('sizes', nonsense);
    expect(kept('sizes', Sizes)).toBeNull();
  }
});

test('a browser that keeps nothing is no obstacle', () => {
  const denied = () => {
    throw new Error('denied');
  };
  use({ getItem: denied, setItem: denied });
  expect(() => keep('sizes', [1])).not.toThrow();
  expect(keptText('sizes')).toBeNull();
  expect(kept('sizes', Sizes)).toBeNull();
});
