import { KeyStack } from './key-stack';
import { keptByBrowser, keyName, sameKey } from './name';
import { isPress } from './press';

const MODIFIERS = {
  ctrlKey: 'Control',
  altKey: 'Alt',
  shiftKey: 'Shift',
  metaKey: 'Meta',
} as const;

/** A press as the browser reports it. */
function press(key: string, code: string, ...held: readonly string[]): KeyboardEvent {
  const flags = Object.fromEntries(
    Object.entries(MODIFIERS).map(([flag, name]) => [flag, held.includes(name)]),
  );
  const event = {
    ...{ key, code, ...flags, target: null, defaultPrevented: false },
    getModifierState: (name: string) => held.includes(name),
    preventDefault: () => Object.assign(event, { defaultPrevented: true }),
  };
  return event as unknown as KeyboardEvent;
}

test.each<[string, KeyboardEvent]>([
  ['Space', press(' ', 'Space')],
  ['B', press('b', 'KeyB')],
  ['B', press('B', 'KeyB')],
  ['Shift+B', press('B', 'KeyB', 'Shift')],
  ['Mod+Shift+Z', press('Z', 'KeyZ', 'Control', 'Shift')],
  ['Mod+ArrowLeft', press('ArrowLeft', 'ArrowLeft', 'Control')],
  ['?', press('?', 'Slash', 'Shift')],
  ['?', press('?', 'Comma')],
  ['+', press('+', 'Equal', 'Shift')],
  ['+', press('+', 'NumpadAdd')],
  ['[', press('[', 'BracketLeft')],
  ['{', press('{', 'BracketLeft', 'Shift')],
  // With Alt some keyboards give another character.
  ['Alt+R', press('®', 'KeyR', 'Alt')],
])('%s is pressed', (name, event) => expect(isPress(event, name)).toBe(true));

test.each<[string, KeyboardEvent]>([
  ['B', press('B', 'KeyB', 'Shift')],
  ['Z', press('z', 'KeyZ', 'Control')],
  ['Mod+Z', press('z', 'KeyZ')],
  ['Mod+Z', press('Z', 'KeyZ', 'Control', 'Shift')],
  // On a keyboard whose Z is elsewhere, the key in its usual place is another letter.
  ['Mod+Z', press('w', 'KeyZ', 'Control')],
  ['[', press('{', 'BracketLeft', 'Shift')],
  ['R', press('r', 'KeyR', 'Alt')],
])('%s is not pressed by another press', (name, event) => expect(isPress(event, name)).toBe(false));

describe('the name of a press', () => {
  test.each<[string | null, KeyboardEvent]>([
    ['B', press('b', 'KeyB')],
    ['Shift+B', press('B', 'KeyB', 'Shift')],
    ['Mod+Shift+Z', press('z', 'KeyZ', 'Control', 'Shift')],
    ['Mod+Z', press('z', 'KeyZ', 'Meta')],
    ['Alt+R', press('®', 'KeyR', 'Alt')],
    ['Alt+1', press('¡', 'Digit1', 'Alt')],
    ['Alt+.', press('≥', 'Period', 'Alt')],
    ['?', press('?', 'Slash', 'Shift')],
    ['Space', press(' ', 'Space')],
    ['Shift+ArrowUp', press('ArrowUp', 'ArrowUp', 'Shift')],
    ['F9', press('F9', 'F9')],
    ['Ö', press('ö', 'Semicolon')],
    [null, press('Alt', 'AltLeft', 'Alt')],
    [null, press('Dead', 'Equal')],
  ])('%s', (name, event) => expect(keyName(event)).toBe(name));

  test('is what the press is found by', () => {
    const letters = [...'ABCXYZ019'].flatMap((key) => [
      press(key.toLowerCase(), /\d/.test(key) ? `Digit${key}` : `Key${key}`),
      press(key.toLowerCase(), /\d/.test(key) ? `Digit${key}` : `Key${key}`, 'Control'),
      press('œ', /\d/.test(key) ? `Digit${key}` : `Key${key}`, 'Alt'),
    ]);
    const others = [
      press('?', 'Slash', 'Shift'),
      press('+', 'Equal', 'Shift'),
      press('ö', 'Semicolon'),
      press('≥', 'Period', 'Alt'),
      press('Home', 'Home', 'Control', 'Shift'),
      press(' ', 'Space', 'Control'),
    ];
    for (const event of [...letters, ...others])
      expect([keyName(event), isPress(event, keyName(event)!)]).toEqual([keyName(event), true]);
  });

  test('Ctrl and Mod are one; what walks through the page or closes it is not ours', () => {
    expect(sameKey('Ctrl+Shift+B', 'Mod+Shift+B')).toBe(true);
    expect(sameKey('B', 'Shift+B')).toBe(false);
    expect(['Tab', 'Escape', 'Mod+W', 'Mod+Shift+T'].every(keptByBrowser)).toBe(true);
    expect(['B', 'Mod+B', 'F9', 'Alt+W'].some(keptByBrowser)).toBe(false);
  });
});

describe('scopes of keys', () => {
  const heard: string[] = [];
  const scope = (
    name: string,
    more: { modal?: boolean; early?: boolean; takes?: string } = {},
  ) => ({
    onKey: (event: KeyboardEvent) => {
      heard.push(name);
      if (more.takes === event.key) event.preventDefault();
    },
    modal: more.modal ?? false,
    early: more.early ?? false,
  });
  beforeEach(() => (heard.length = 0));

  test('the uppermost has a key first, and those below what it leaves', () => {
    const stack = new KeyStack();
    stack.push(scope('place'));
    const end = stack.push(scope('panel', { takes: 'a' }));
    stack.handle(press('a', 'KeyA'), false);
    stack.handle(press('b', 'KeyB'), false);
    end();
    stack.handle(press('a', 'KeyA'), false);
    expect(heard).toEqual(['panel', 'panel', 'place', 'place']);
  });

  test('nothing reaches what lies below a dialog, early or not', () => {
    const stack = new KeyStack();
    stack.push(scope('place'));
    stack.push(scope('recording', { early: true }));
    const end = stack.push(scope('dialog', { modal: true }));
    for (const early of [true, false]) stack.handle(press('a', 'KeyA'), early);
    expect(heard).toEqual(['dialog']);
    end();
    for (const early of [true, false]) stack.handle(press('a', 'KeyA'), early);
    expect(heard).toEqual(['dialog', 'recording', 'place']);
  });

  test('a scope that goes in the middle of a key, and one that goes twice, harm nobody', () => {
    const stack = new KeyStack();
    stack.push(scope('below'));
    const end: () => void = stack.push({
      onKey: () => {
        heard.push('going');
        end();
        end();
      },
      modal: false,
      early: false,
    });
    stack.handle(press('a', 'KeyA'), false);
    stack.handle(press('a', 'KeyA'), false);
    expect(heard).toEqual(['going', 'below', 'below']);
  });
});
