import { matchKeybindingPress, parseKeybinding, type KeybindingPress } from 'tinykeys';

const parsed = new Map<string, readonly KeybindingPress[]>();

/**
 * A key as it is listed, in the form that the matcher reads. Shift is part of the character for
 * signs such as ? and +; with Alt the character may be another one, and the key's own place tells
 * which letter it is.
 */
function bindingOf(name: string): string {
  const parts = name.split(/(?<=\w)\+/);
  const key = parts.pop()!;
  const modifiers = parts.map((part) => (part === 'Mod' || part === 'Ctrl' ? '$mod' : part));
  if (modifiers.includes('Alt') && key === '.') return [...modifiers, '(\\.|Period)'].join('+');
  if (!/\w/.test(key)) return [...modifiers, `[Shift]+${key}`].join('+');
  if (modifiers.includes('Alt') && /^[A-Z\d]$/.test(key))
    return [...modifiers, `(${key}|(Key|Digit)${key})`].join('+');
  return [...modifiers, key].join('+');
}

/** Whether an event is the press of a key, as `Mod+Shift+Z`, `Space` or `?`. */
export function isPress(event: KeyboardEvent, name: string): boolean {
  let presses = parsed.get(name);
  if (!presses) parsed.set(name, (presses = parseKeybinding(bindingOf(name))));
  return presses.some((press) => matchKeybindingPress(event, press));
}

const isElement = (target: EventTarget | null): target is HTMLElement =>
  typeof HTMLElement !== 'undefined' && target instanceof HTMLElement;

/** Whether a list takes the key: letters and arrows choose from it, keys with Ctrl do not. */
const choosesFrom = (event: KeyboardEvent | ClipboardEvent): boolean =>
  (event.target as HTMLElement).tagName === 'SELECT' &&
  !('ctrlKey' in event && (event.ctrlKey || event.metaKey));

/** Whether a field takes what is typed or pasted. */
export const isTyping = (event: KeyboardEvent | ClipboardEvent): boolean => {
  const { target } = event;
  return (
    isElement(target) &&
    (target.isContentEditable ||
      target.tagName === 'TEXTAREA' ||
      choosesFrom(event) ||
      (target instanceof HTMLInputElement && !/^(range|checkbox|color)$/.test(target.type)))
  );
};

/** Whether what has the focus is pressed by Enter and Space. */
export const isPressable = ({ target }: KeyboardEvent): boolean =>
  isElement(target) && !!target.closest('button, a, [role="tab"], summary');
