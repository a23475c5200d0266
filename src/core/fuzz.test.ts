import fc from 'fast-check';
import { historyFits, readHistory } from './edit/check-history';
import { counter, demoProject, SOURCES } from './edit/fixture';
import { doEdit, EMPTY_HISTORY, undo, type Versioned } from './edit/history';
import { isPatch, patchProject, PatchError } from './edit/patch';
import { changeCanvas } from './edit/settings';
import { splitAll } from './edit/clips';
import type { Project } from './project/model';
import { validateProject } from './project/validate';
import { liveData } from './take/live';
import { pointerTrackOf } from './take/pointer';
import { readTakeEvents } from './take/read-events';
import { parsePointerTrack, PointerTrackError } from './telemetry/parse';
import { pointerAt } from './telemetry/sample';
import { thinTrack } from './telemetry/thin';
import { rateFromNumber, secondsToTicks } from './time/ticks';
import { parseTimecode } from './time/timecode';
import { parseScript } from './words/parse';

/*
 * Every reader of what comes from outside, given what no one would write: it answers, or refuses in
 * its own words.
 */

const RATE = rateFromNumber(30);
const odd = fc.oneof(
  fc.constantFrom(null, '', '__proto__', 'constructor', -1, 0, 1e308, -0, [], {}),
  fc.double(),
  fc.string({ unit: 'binary', maxLength: 20 }),
  fc.jsonValue({ maxDepth: 3 }),
);

/** A JSON value with some of its places put to something else, taken away, or given twice. */
function mutated(value: unknown): fc.Arbitrary<unknown> {
  const text = JSON.stringify(value);
  const places = [...text.matchAll(/"(?:[^"\\]|\\.)*"|-?\d[\d.e+-]*|true|false|null/g)];
  return fc
    .array(fc.record({ at: fc.nat(places.length - 1), to: odd, cut: fc.boolean() }), {
      minLength: 1,
      maxLength: 4,
    })
    .map((changes) => {
      let changed = text;
      for (const { at, to, cut } of [...changes].sort((a, b) => b.at - a.at)) {
        const place = places[at]!;
        const end = place.index + place[0].length;
        const other = JSON.stringify(to) ?? '0';
        // A key stays a key.
        const key = text[end] === ':';
        const put = key ? JSON.stringify(other) : cut ? 'null' : other;
        changed = changed.slice(0, place.index) + put + changed.slice(end);
      }
      try {
        return JSON.parse(changed) as unknown;
      } catch {
        return changed;
      }
    });
}

/** A text with some stretches removed, doubled, or filled with anything. */
const mangled = (text: string): fc.Arbitrary<string> =>
  fc
    .array(
      fc.record({
        at: fc.nat(text.length),
        length: fc.nat(40),
        put: fc.string({ unit: 'binary', maxLength: 8 }),
      }),
      { maxLength: 5 },
    )
    .map((changes) =>
      changes.reduce(
        (now, { at, length, put }) => now.slice(0, at) + put + now.slice(at + length),
        text,
      ),
    );

const project = demoProject(counter());
const edited: Versioned = [0, 1, 2].reduce<Versioned>(
  (state, i) =>
    doEdit(state, `Edit ${i}`, (draft) =>
      i === 1
        ? splitAll(draft, secondsToTicks(10), counter())
        : changeCanvas(draft, { background: `#00000${i + 1}` }),
    ),
  { project, history: EMPTY_HISTORY },
);

test('documents: sound, or refused with the place of a fault', () => {
  fc.assert(
    fc.property(fc.oneof(mutated(project), fc.anything()), (value) => {
      const checked = validateProject(value, SOURCES);
      if ('faults' in checked) {
        expect(checked.faults.length).toBeGreaterThan(0);
        for (const { path, message } of checked.faults)
          expect([typeof path, typeof message]).toEqual(['string', 'string']);
      } else expect(validateProject(checked.project, SOURCES)).toEqual(checked);
    }),
    { numRuns: 300 },
  );
});

test('histories: of the form that undo takes, or refused; and undo of one that fits never breaks', () => {
  fc.assert(
    fc.property(fc.oneof(mutated(edited.history), fc.anything()), (value) => {
      const read = readHistory(value);
      if ('fault' in read) return expect(read.fault).toMatch(/^(is|has) /);
      if (!historyFits(edited.project, read.history)) return;
      let state: Versioned = { project: edited.project, history: read.history };
      for (let i = 0; i <= read.history.done.length; i++) state = undo(state);
      expect(({} as { value?: unknown }).value).toBeUndefined();
    }),
    { numRuns: 500 },
  );
});

test('patches: fit a document, or say that they were made for another', () => {
  const patch = edited.history.done[1]!.forward;
  fc.assert(
    fc.property(mutated(patch), (value) => {
      if (!isPatch(value)) return;
      try {
        const result = patchProject(project, value);
        expect(Object.keys(result)).toEqual(Object.keys(project));
      } catch (error) {
        expect(error).toBeInstanceOf(PatchError);
      }
    }),
    { numRuns: 500 },
  );
});

const SIZE = { width: 1920, height: 1080 };
const samples = Array.from({ length: 30 }, (_, i) => [i * 16, (i * 37) % 1920, (i * 53) % 1080]);
const track = {
  ...{ format: 'vistum-pointer', version: 1, ...SIZE, samples },
  events: [
    { t: 100, type: 'down', button: 0 },
    { t: 180, type: 'up', button: 0 },
    { t: 200, type: 'key', key: 'a' },
  ],
};

test('pointer tracks: positions within the picture in order of time, or a sentence', () => {
  const csv = `ms,x,y,event\n${samples.map((s) => s.join(',')).join('\n')}\n500,1,2,key a`;
  const texts = fc.oneof(
    mutated(track).map((v) => (typeof v === 'string' ? v : JSON.stringify(v))),
    mangled(JSON.stringify(track)),
    mangled(csv),
    fc.string({ unit: 'binary' }),
  );
  fc.assert(
    fc.property(texts, (text) => {
      let read;
      try {
        read = parsePointerTrack(text, SIZE).track;
      } catch (error) {
        expect(error).toBeInstanceOf(PointerTrackError);
        expect((error as Error).message).toMatch(/\.$/);
        return;
      }
      for (const [i, [t, x, y]] of read.samples.entries()) {
        expect([t, x, y].every(Number.isFinite)).toBe(true);
        expect(x >= 0 && x < read.width && y >= 0 && y < read.height).toBe(true);
        if (i) expect(t).toBeGreaterThanOrEqual(read.samples[i - 1]![0]);
      }
    }),
    { numRuns: 500 },
  );
});

test('thinning a track moves the pointer by no more than a quarter of a pixel', () => {
  const walk = fc.array(
    fc.tuple(
      fc.integer({ min: 0, max: 40 }),
      fc.integer({ min: -9, max: 9 }),
      fc.integer({ min: -9, max: 9 }),
    ),
    { minLength: 1, maxLength: 200 },
  );
  fc.assert(
    fc.property(walk, fc.boolean(), (steps, straight) => {
      let [t, x, y] = [0, 500, 500];
      const walked = steps.map(([dt, dx, dy]): [number, number, number] => {
        t += dt;
        x += straight ? dt * 0.7 : dx;
        y += straight ? dt * 0.2 : dy;
        return [t, x, y];
      });
      const whole = { ...track, samples: walked, events: [] } as unknown as Parameters<
        typeof thinTrack
      >[0];
      const thin = thinTrack(whole);
      for (let ms = 0; ms <= t; ms += 3) {
        const [a, b] = [pointerAt(whole, ms), pointerAt(thin, ms)];
        expect(Math.max(Math.abs(a.x - b.x), Math.abs(a.y - b.y))).toBeLessThanOrEqual(0.25 + 1e-6);
      }
      if (straight)
        expect(thin.samples.length).toBeLessThanOrEqual(3 + steps.filter(([dt]) => !dt).length * 2);
    }),
  );
});

const EVENTS = [
  { t: 10, type: 'pointer', x: 5, y: 6 },
  { t: 20, type: 'down', button: 0 },
  { t: 30, type: 'layout', kind: 'side' },
  { t: 40, type: 'closer', x: 100, y: 100, magnification: 2 },
  {
    ...{ t: 50, type: 'stroke', id: 's', points: [[0, 1, 2]] },
    drawn: { kind: 'stroke', tool: 'pen', width: 4, color: '#ff0000' },
  },
  {
    ...{ t: 60, type: 'figure', id: 'f' },
    drawn: {
      ...{ kind: 'shape', shape: 'box', from: { x: 1, y: 1 }, to: { x: 9, y: 9 } },
      ...{ width: 4, color: '#ff0000' },
    },
  },
  { t: 70, type: 'words', id: 'w', text: 'Here', x: 1, y: 2, color: '#ff0000', size: 20 },
  { t: 80, type: 'erase', ids: ['s'] },
  { t: 90, type: 'clock', track: 'screen', offset: 3, rate: 1, pieces: 1, dropped: 0 },
  { t: 95, type: 'mark', name: 'Now' },
  { t: 96, type: 'join' },
];

test('a take’s data: whatever the lines, what is made of them is whole', () => {
  expect(readTakeEvents(EVENTS.map((e) => JSON.stringify(e)).join('\n'))).toEqual(EVENTS);
  const lines = fc.array(
    fc.oneof(
      fc
        .constantFrom(...EVENTS)
        .chain(mutated)
        .map((v) => JSON.stringify(v)),
      fc.string({ unit: 'binary' }),
    ),
    { maxLength: 30 },
  );
  fc.assert(
    fc.property(lines, (all) => {
      const events = readTakeEvents(all.join('\n'));
      const pointer = pointerTrackOf(events, SIZE, 0);
      if (pointer) parsePointerTrack(JSON.stringify(pointer), SIZE);
      const made = liveData(
        events,
        {
          ...{ footageId: 'screen', area: { x: 0, y: 0, ...SIZE } as never, frame: SIZE },
          ...{ rate: RATE, start: 0, from: 0, end: secondsToTicks(10), hold: null },
        },
        counter(),
      );
      for (const span of [...made.callouts, ...made.framings, ...made.layouts])
        expect(Number.isSafeInteger(span.start) && Number.isSafeInteger(span.end)).toBe(true);
    }),
    { numRuns: 500 },
  );
});

test('scripts: steps of words, and nothing that was written is lost', () => {
  const script = [
    '# Open the schedule\n\nKilnbook opens.\n\nScreen: the week\n',
    '| Title | Narration |\n|---|---|\n| One | Two |\n',
    'title\tnarration\nOne\tTwo\n',
    '1. Open it\n\n2. Close it\n\nNotes: slowly',
  ];
  const texts = fc.oneof(...script.map(mangled), fc.string({ unit: 'binary', maxLength: 300 }));
  fc.assert(
    fc.property(texts, (text) => {
      const { steps } = parseScript(text);
      for (const step of steps)
        for (const column of ['title', 'narration', 'action', 'notes'] as const)
          expect(typeof step[column]).toBe('string');
      const kept = JSON.stringify(steps);
      for (const word of text.match(/\bKilnbook\b/g) ?? []) expect(kept).toContain(word);
    }),
    { numRuns: 500 },
  );
});

test('timecodes: a time of the project, or none', () => {
  fc.assert(
    fc.property(fc.oneof(mangled('00:01:02:15'), fc.string({ unit: 'binary' })), (text) => {
      const time = parseTimecode(text, RATE);
      if (time !== null) expect(Number.isSafeInteger(time) && time >= 0).toBe(true);
    }),
    { numRuns: 1000 },
  );
});

test('what a document is made of can’t reach the prototypes of objects', () => {
  const text = JSON.stringify(project).replace('{', '{"__proto__":{"polluted":1},');
  const checked = validateProject(JSON.parse(text) as Project, SOURCES);
  expect(checked).toHaveProperty('faults');
  expect(({} as { polluted?: number }).polluted).toBeUndefined();
});
