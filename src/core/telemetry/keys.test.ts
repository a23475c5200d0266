import { keysAt } from './keys';
import type { PointerEvent, PointerTrack } from './pointer-track';

const track = (keys: readonly (readonly [t: number, key: string, secret?: boolean])[]) =>
  ({
    ...{ format: 'vistum-pointer', version: 2, width: 100, height: 100, samples: [[0, 0, 0]] },
    events: keys.map(([t, key, secret]): PointerEvent => ({
      t,
      type: 'key',
      key,
      ...(secret && { secret }),
    })),
  }) as PointerTrack;

test('a shortcut is all its keys, however it came: together, or modifiers first', () => {
  const one = track([[1000, 'Control+Shift+s']]);
  expect(keysAt(one, 1100, 1500, false)).toEqual({ caps: ['Ctrl', 'Shift', 'S'], since: 100 });
  const after = track([
    [1000, 'Control'],
    [1200, 's'],
  ]);
  expect(keysAt(after, 1100, 1500, false)).toBeNull();
  expect(keysAt(after, 1250, 1500, false)).toMatchObject({ caps: ['Ctrl', 'S'] });
  // A modifier that was pressed long before is not part of it.
  const late = track([
    [1000, 'Control'],
    [4000, 's'],
  ]);
  expect(keysAt(late, 4100, 1500, false)).toBeNull();
  expect(keysAt(track([[0, 'Control++']]), 10, 500, false)?.caps).toEqual(['Ctrl', '+']);
});

test('keys with a name are shown, and go after a while', () => {
  const enter = track([[500, 'Enter']]);
  expect(keysAt(enter, 499, 1000, false)).toBeNull();
  expect(keysAt(enter, 1499, 1000, false)).toMatchObject({ caps: ['Enter'] });
  expect(keysAt(enter, 1500, 1000, false)).toBeNull();
  expect(keysAt(track([[0, ' ']]), 10, 500, false)).toBeNull();
  expect(keysAt(track([[0, 'Alt+ ']]), 10, 500, false)?.caps).toEqual(['Alt', 'Space']);
});

test('typing is shown only where it is wanted, as one run of letters', () => {
  const typed = track([...'Glaze'].map((key, i) => [i * 150, key] as const));
  expect(keysAt(typed, 650, 2000, false)).toBeNull();
  expect(keysAt(typed, 650, 2000, true)).toEqual({ caps: ['Glaze'], since: 50 });
  expect(keysAt(typed, 320, 2000, true)?.caps).toEqual(['Gla']);
});

test('what is typed into a field for secrets is never shown', () => {
  const mixed = track([
    [0, 'a'],
    [100, 'x', true],
    [200, 'Control+x', true],
    [300, 'b'],
  ]);
  expect(keysAt(mixed, 350, 2000, true)?.caps).toEqual(['ab']);
});
