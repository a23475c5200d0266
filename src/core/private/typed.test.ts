import fc from 'fast-check';
import { keysAt } from '../telemetry/keys';
import type { PointerTrack } from '../telemetry/pointer-track';
import { timesTyped, typedPrivately } from './typed';

type Event = PointerTrack['events'][number];
/** Keys that are pressed one after the other, a tenth of a second apart. */
const trackOf = (...keys: (string | Event)[]): PointerTrack => ({
  ...{ format: 'vistum-pointer', version: 1, width: 1920, height: 1080, samples: [] },
  events: keys.map((key, i) =>
    typeof key === 'string' ? { t: i * 100, type: 'key', key } : { ...key, t: i * 100 },
  ),
});
const typed = (text: string) => Array.from(text);
const shown = (track: PointerTrack) => {
  const seen = new Set<string>();
  for (let ms = 0; ms < track.events.length * 100 + 500; ms += 50)
    for (const cap of keysAt(track, ms, 1600, true, typedPrivately(track))?.caps ?? [])
      seen.add(cap);
  return [...seen].join(' ');
};

test('an address that is typed is never shown, not even its beginning', () => {
  const track = trackOf(...typed('Write to ilse.varga@saltmarsh.example today'));
  expect(timesTyped(track)).toBe(1);
  const seen = shown(track);
  expect(seen).toMatch(/Write to/);
  expect(seen).not.toMatch(/ilse|varga|@|saltmarsh/);
});

test('numbers and keys are none to be shown either, plain words and shortcuts are', () => {
  for (const secret of ['4111 1111 1111 1111', 'sk_live_9aZ4kQ7xB2mN8vT1'])
    expect(shown(trackOf(...typed(`${secret} `)))).not.toMatch(secret.slice(0, 4));
  const plain = trackOf(...typed('glaze firing'), 'Control+s', 'Enter');
  expect(typedPrivately(plain).size).toBe(0);
  expect(shown(plain)).toMatch(/Ctrl S/);
});

test('what was mistyped and taken back does not hide the rest', () => {
  const track = trackOf(...typed('ilsex'), 'Backspace', ...typed('@kiln.example'));
  expect(shown(track)).not.toMatch(/ilse@|kiln/);
  // A press begins another text.
  const apart = trackOf(...typed('ilse'), { t: 0, type: 'down' }, ...typed('kiln.example'));
  expect(typedPrivately(apart).size).toBe(0);
});

test('only keys of the track are named, however it looks', () => {
  const key = fc.constantFrom(...typed('a@.1 9🙂'), 'Backspace', 'Enter', 'Shift', 'Control+c');
  fc.assert(
    fc.property(fc.array(key, { maxLength: 60 }), (keys) => {
      const track = trackOf(...keys);
      for (const event of typedPrivately(track)) {
        expect([...track.events[event]!.key!]).toHaveLength(1);
      }
      expect(timesTyped(track)).toBeLessThanOrEqual(typedPrivately(track).size);
    }),
  );
});
