import { countFront } from '../bisect';
import type { PointerTrack } from './pointer-track';

/** Keys that were pressed together, or a run of letters that was typed. */
export interface KeysNow {
  /** What stands on each cap; typed letters are one. */
  readonly caps: readonly string[];
  /** Milliseconds since the last of them. */
  readonly since: number;
}

const MODIFIERS: Readonly<Record<string, string>> = {
  Control: 'Ctrl',
  Alt: 'Alt',
  AltGraph: 'AltGr',
  Shift: 'Shift',
  Meta: 'Meta',
};
const NAMES: Readonly<Record<string, string>> = {
  ...MODIFIERS,
  ' ': 'Space',
  Escape: 'Esc',
  ArrowUp: 'Up',
  ArrowDown: 'Down',
  ArrowLeft: 'Left',
  ArrowRight: 'Right',
  PageUp: 'Page up',
  PageDown: 'Page down',
};
/** A modifier that is pressed so long before another key, in ms, belongs to it. */
const TOGETHER = 1000;
/** Letters that follow each other within so many ms are one run. */
const RUN = 900;
/** So many letters of a run are shown, the last. */
const SHOWN = 24;

const isLetter = (key: string) => [...key].length === 1;
const isModifier = (key: string) => Object.hasOwn(MODIFIERS, key);
/** `Control+s` is one press of both, `+` is the key itself. */
const partsOf = (key: string) => (isLetter(key) ? [key] : key.split(/\+(?=.)/).filter(Boolean));
const capOf = (key: string) =>
  Object.hasOwn(NAMES, key) ? NAMES[key]! : isLetter(key) ? key.toUpperCase() : key;

/**
 * The keys that are to be seen at an instant: a shortcut, a key with a name, or, where wanted, what
 * is being typed. What was typed into a field for secrets is never among them.
 *
 * @param ms time in the recording
 * @param stay how long keys are seen after they were pressed, in milliseconds
 * @param typing whether plain letters are shown, too
 * @param never events of the track, by their numbers, that are never shown
 */
export function keysAt(
  { events }: PointerTrack,
  ms: number,
  stay: number,
  typing: boolean,
  never: ReadonlySet<number> = new Set(),
): KeysNow | null {
  let held: { parts: string[]; t: number } | null = null;
  let now: { caps: string[]; t: number; run: boolean } | null = null;
  const from = ms - stay - TOGETHER - RUN * SHOWN;
  for (let i = countFront(events, ({ t }) => t < from); i < events.length; i++) {
    const { t, type, key, secret } = events[i]!;
    if (t > ms) break;
    if (type !== 'key' || !key || secret || never.has(i)) continue;
    const parts = partsOf(key);
    if (parts.every(isModifier)) {
      const known: string[] = held && t - held.t <= TOGETHER ? held.parts : [];
      held = { parts: [...new Set([...known, ...parts])], t };
      continue;
    }
    const before: string[] = held && t - held.t <= TOGETHER ? held.parts : [];
    held = null;
    const all = [...new Set([...before, ...parts])];
    // With Shift alone a letter is still typing.
    const plain = all.every((k) => k === 'Shift' || isLetter(k));
    if (plain) {
      if (!typing) continue;
      const letter = parts.at(-1)!;
      const goesOn = now?.run && t - now.t <= RUN;
      const run: string = (goesOn ? now!.caps[0]! : '') + letter;
      now = { caps: [[...run].slice(-SHOWN).join('')], t, run: true };
    } else now = { caps: all.map(capOf), t, run: false };
  }
  return now && ms - now.t < stay ? { caps: now.caps, since: ms - now.t } : null;
}
