import fc from 'fast-check';
import { sourceEnd } from '../project/clip-time';
import { findClip } from '../project/query';
import { counter, emptyProject, facts, FRAME } from './fixture';
import { placeBeside } from './place';
import { ROLES } from '../project/sources';
import { secondsToTicks } from '../time/ticks';
import { arrangeRecordings } from './arrange';

const s = secondsToTicks;
const recording = (id: string, role: (typeof ROLES)[number], seconds: number) => ({
  ...{ id, role, duration: role === 'still' ? 0 : s(seconds), hasVideo: true },
  kind: role === 'still' ? ('image' as const) : ('video' as const),
});
const startsOf = (...given: Parameters<typeof arrangeRecordings>) =>
  Object.fromEntries(arrangeRecordings(...given).parts.map((p) => [p.footageId, p.at]));

test('recordings that heard the same lie where their sounds fit, whichever came first', () => {
  const both = [recording('screen', 'screen', 60), recording('camera', 'presenter', 70)];
  const heard = [{ first: 'screen', second: 'camera', offset: -1.4 }];
  expect(startsOf(both, heard, s(5))).toEqual({ camera: 0, screen: s(1.4) });
  expect(startsOf([...both].reverse(), heard, s(5))).toEqual({ camera: 0, screen: s(1.4) });
  expect([...arrangeRecordings(both, heard, s(5)).linedUp].sort()).toEqual(['camera', 'screen']);
});

test('a chain of recordings hangs together, and the next group follows at its end', () => {
  const all = [
    recording('a', 'screen', 10),
    recording('other', 'screen', 4),
    recording('b', 'presenter', 10),
    recording('c', 'voice', 20),
  ];
  const heard = [
    { first: 'b', second: 'a', offset: 2 },
    { first: 'c', second: 'b', offset: 3 },
  ];
  expect(startsOf(all, heard, s(5))).toEqual({ c: 0, b: s(3), a: s(5), other: s(20) });
});

test('one of each role without a sound in common begin together; others follow one another', () => {
  const pair = [recording('screen', 'screen', 60), recording('camera', 'presenter', 70)];
  expect(startsOf(pair, [], s(5))).toEqual({ screen: 0, camera: 0 });
  const three = [...pair, recording('more', 'screen', 10), recording('title', 'still', 0)];
  expect(startsOf(three, [], s(5))).toEqual({
    ...{ screen: 0, camera: s(60), more: s(130), title: s(140) },
  });
  const music = [...pair, recording('music', 'music', 200)];
  expect(startsOf(music, [], s(5))).toEqual({ screen: 0, camera: 0, music: 0 });
});

test('each recording is placed once, none before the start, and distances are kept', () => {
  const many = fc.array(fc.tuple(fc.constantFrom(...ROLES), fc.integer({ min: 1, max: 90 })), {
    maxLength: 12,
  });
  const pairs = fc.array(fc.tuple(fc.nat(11), fc.nat(11), fc.integer({ min: -40, max: 40 })), {
    maxLength: 8,
  });
  fc.assert(
    fc.property(many, pairs, (list, links) => {
      const all = list.map(([role, seconds], i) => recording(`r${i}`, role, seconds));
      const heard = links
        .filter(([a, b]) => a < b && b < all.length)
        .map(([a, b, offset]) => ({ first: `r${a}`, second: `r${b}`, offset }));
      const { parts, linedUp } = arrangeRecordings(all, heard, s(5));
      expect(parts.map((p) => p.footageId).sort()).toEqual(all.map(({ id }) => id).sort());
      for (const { at } of parts) expect(at).toBeGreaterThanOrEqual(0);
      const [only, second] = heard;
      if (only && !second && linedUp.length) {
        const start = (id: string) => parts.find((p) => p.footageId === id)!.at;
        expect(start(only.second) - start(only.first)).toBe(s(only.offset));
      }
    }),
  );
});

test('a recording that begins between two frames is in step to the tick', () => {
  const project = emptyProject();
  const camera = { ...facts('camera', 'presenter', 20), hasAudio: true };
  const at = secondsToTicks(1.2345);
  const ids = placeBeside(project, camera, at, counter());
  const clips = ids.map((id) => findClip(project, id)!.clip);
  expect(clips).toHaveLength(2);
  for (const clip of clips) {
    expect(clip.start % FRAME).toBe(0);
    expect(clip.start).toBeGreaterThanOrEqual(at);
    expect(clip.start - clip.source).toBe(at);
    expect(sourceEnd(clip)).toBeLessThanOrEqual(camera.duration);
  }
});
