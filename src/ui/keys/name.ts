/** What of a key press its name is made of. */
export type Press = Pick<
  KeyboardEvent,
  'key' | 'code' | 'altKey' | 'ctrlKey' | 'metaKey' | 'shiftKey'
>;

const MODIFIERS = /^(Alt|Control|Meta|Shift|AltGraph|CapsLock|Dead|Process|Unidentified)$/;

/**
 * The name of a key press, as keys are listed and `isPress` reads them; null for a modifier alone
 * and for what has no name. Letters and digits are named by their place where a modifier may change
 * their sign; Shift is part of another sign, such as ?.
 */
export function keyName(event: Press): string | null {
  if (MODIFIERS.test(event.key)) return null;
  const placed = /^(?:Key([A-Z])|Digit(\d))$/.exec(event.code);
  const modified = event.altKey || event.ctrlKey || event.metaKey;
  const typed = event.key.length === 1 && event.key !== ' ';
  const key =
    placed && (modified || /^[A-Za-z0-9]$/.test(event.key))
      ? (placed[1] ?? placed[2]!)
      : event.altKey && event.code === 'Period'
        ? '.'
        : event.key === ' '
          ? 'Space'
          : typed
            ? event.key.toUpperCase()
            : event.key;
  return [
    event.ctrlKey || event.metaKey ? 'Mod+' : '',
    event.altKey ? 'Alt+' : '',
    event.shiftKey && /^\w+$/.test(key) ? 'Shift+' : '',
    key,
  ].join('');
}

/** Whether two names are the same press. */
export const sameKey = (a: string, b: string): boolean =>
  a.replace(/\bCtrl\b/, 'Mod') === b.replace(/\bCtrl\b/, 'Mod');

/** Keys that walk through the page or that the browser never hands to a page. */
const NOT_OURS = new Set(['Tab', 'Shift+Tab', 'Escape', 'F5', 'F11', 'F12', 'Mod+Tab']);

/** Whether a key can't be given a meaning: it walks through the page, or the browser keeps it. */
export const keptByBrowser = (name: string): boolean =>
  NOT_OURS.has(name) || /^Mod\+(Shift\+)?[WTNQRL]$/.test(name);
