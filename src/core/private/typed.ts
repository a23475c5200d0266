import type { PointerTrack } from '../telemetry/pointer-track';
import { privateIn } from './patterns';

/** What is typed after a longer rest, in ms, is another text. */
const REST = 5000;

/** A sign that was typed, and which event of the track it was. */
interface Typed {
  readonly sign: string;
  readonly event: number;
}

const isSign = (key: string) => [...key].length === 1;
/** These are held while signs are typed. */
const HELD = new Set(['Shift', 'AltGraph', 'CapsLock', 'Dead']);

/** The texts that were typed: each up to a press, another key, or a rest. */
function textsOf({ events }: PointerTrack): Typed[][] {
  const texts: Typed[][] = [];
  let text: Typed[] = [];
  let last = -Infinity;
  const end = () => {
    if (text.length) texts.push(text);
    text = [];
  };
  events.forEach(({ t, type, key, secret }, event) => {
    if (type === 'down') end();
    if (type !== 'key' || !key || secret || HELD.has(key)) return;
    if (t - last > REST) end();
    last = t;
    if (isSign(key)) text.push({ sign: key, event });
    else if (key === 'Backspace') text.pop();
    else end();
  });
  end();
  return texts;
}

const known = new WeakMap<PointerTrack, ReadonlySet<number>>();

/**
 * Which events of a pointer track typed private data, by their numbers: addresses, numbers of
 * phones, cards and accounts, keys. What was typed and taken back again is none.
 */
export function typedPrivately(track: PointerTrack): ReadonlySet<number> {
  const before = known.get(track);
  if (before) return before;
  const found = new Set<number>();
  for (const text of textsOf(track)) {
    // One place in the text for each of its units, as they are counted there.
    const events = text.flatMap(({ sign, event }) => Array.from(sign, () => event));
    for (const { from, to } of privateIn(text.map(({ sign }) => sign).join('')))
      for (const event of events.slice(from, to)) found.add(event);
  }
  known.set(track, found);
  return found;
}

/** How often private data was typed: in how many runs of keys that follow one another. */
export function timesTyped(track: PointerTrack): number {
  const events = [...typedPrivately(track)].sort((a, b) => a - b);
  const isNext = (i: number) =>
    track.events
      .slice(events[i - 1]! + 1, events[i])
      .every(({ type, key }) => type !== 'down' && (type !== 'key' || HELD.has(key ?? '')));
  return events.filter((_, i) => i === 0 || !isNext(i)).length;
}
