import fc from 'fast-check';
import { historyFits, readHistory } from './check-history';
import { applyHistoryDelta, historyDelta, readHistoryDelta } from './history-delta';
import { PatchError } from './patch';
import { EditError } from './error';
import { counter, SOURCES } from './fixture';
import {
  doEdit,
  EMPTY_HISTORY,
  goToStep,
  redo,
  undo,
  type History,
  type Versioned,
} from './history';
import { prepareEdit } from './registry';
import { callOf, run, RUNS, step, steps, withStill } from './testing';

test('the history of any edits is taken when it is saved, and fits when it is opened', () => {
  fc.assert(
    fc.property(steps, fc.nat(25), (list, back) => {
      let state = run(list, withStill(counter()), counter());
      for (let i = 0; i < back; i++) state = undo(state);
      const saved = JSON.parse(JSON.stringify(state.history)) as History;
      expect(readHistory(saved)).toEqual({ history: saved });
      expect(historyFits(state.project, saved)).toBe(true);
    }),
    RUNS,
  );
});

/** Edits, and steps back and on in between: what a person does between two saves. */
const doings = fc.array(
  fc.oneof(
    { weight: 4, arbitrary: step.map((s) => ({ kind: 'edit' as const, s })) },
    { weight: 1, arbitrary: fc.nat(5).map((n) => ({ kind: 'back' as const, n })) },
    { weight: 1, arbitrary: fc.nat(5).map((n) => ({ kind: 'on' as const, n })) },
    { weight: 1, arbitrary: fc.constant({ kind: 'merge' as const }) },
  ),
  { maxLength: 14 },
);
type Doing = typeof doings extends fc.Arbitrary<readonly (infer D)[]> ? D : never;

function doAll(list: readonly Doing[], start: Versioned, newId: () => string): Versioned {
  let state = start;
  for (const doing of list) {
    if (doing.kind === 'back') for (let i = 0; i < doing.n; i++) state = undo(state);
    else if (doing.kind === 'on') for (let i = 0; i < doing.n; i++) state = redo(state);
    else if (doing.kind === 'merge')
      state = doEdit(
        state,
        state.history.done.at(-1)?.label ?? 'Merged',
        (draft) => void (draft.presenter.size = 0.1 + ((draft.presenter.size * 7) % 0.5)),
        true,
      );
    else {
      try {
        const args = callOf(doing.s, state.project, newId);
        const { label, edit } = prepareEdit(doing.s.name, args, state.project, SOURCES, newId);
        state = doEdit(state, label, edit);
      } catch (error) {
        if (!(error instanceof EditError)) throw error;
      }
    }
  }
  return state;
}

test('what was done between two saves leads from the one to the other, as text and step by step', () => {
  fc.assert(
    fc.property(doings, doings, (first, second) => {
      const newId = counter();
      const start = { project: withStill(newId), history: EMPTY_HISTORY };
      const before = doAll(first, start, newId);
      const after = doAll(second, before, newId);
      const delta = historyDelta(before, after)!;
      const sent = readHistoryDelta(JSON.parse(JSON.stringify(delta)))!;
      const stored = JSON.parse(JSON.stringify(before)) as Versioned;
      expect(applyHistoryDelta(stored, sent)).toEqual(after);
    }),
    RUNS,
  );
});

test('a history that begins anew, and one that forgot its oldest, lead to the same document', () => {
  const newId = counter();
  const start = { project: withStill(newId), history: EMPTY_HISTORY };
  const numbers = (which: number) => ({ which, at: 30 * which, length: 20 });
  const edits = (count: number) =>
    Array.from({ length: count }, (_, i): Doing => {
      return { kind: 'edit', s: { name: 'add-marker', place: numbers(i + 1) } };
    });
  const before = undo(doAll(edits(6), start, newId));
  for (const history of [
    EMPTY_HISTORY,
    { done: before.history.done.slice(3), undone: [] },
    { done: before.history.done.slice(2), undone: before.history.undone },
  ]) {
    const after = { project: before.project, history };
    expect(applyHistoryDelta(before, historyDelta(before, after)!)).toEqual(after);
  }
  // More edits than a history keeps can't travel as steps.
  expect(historyDelta(start, doAll(edits(520), start, newId))).toBeNull();
});

test('a change that was made for another state is refused, whatever it is', () => {
  const newId = counter();
  const start = { project: withStill(newId), history: EMPTY_HISTORY };
  for (const delta of [
    { drop: 0, keep: 3, add: [], done: 3 },
    { drop: 9, keep: 0, add: [], done: 0 },
    { drop: 0, keep: 0, add: [], done: 1 },
  ])
    expect(() => applyHistoryDelta(start, delta)).toThrow(PatchError);
  for (const value of [
    null,
    7,
    {},
    { drop: -1, keep: 0, add: [], done: 0 },
    { drop: 0, keep: 1e9, add: [], done: 0 },
    { drop: 0, keep: 0, add: [{ label: 1 }], done: 0 },
    { drop: 0, keep: 0, add: 'x', done: 0 },
    { drop: 0, keep: 0, add: [], done: 4 },
    { drop: 0, keep: 0, add: [], done: 0, more: 1 },
    {
      drop: 0,
      keep: 0,
      done: 0,
      add: [{ label: 'x', forward: { constructor: { value: 1 } }, inverse: {} }],
    },
    JSON.parse(
      '{"drop":0,"keep":0,"done":0,"add":[{"label":"x","forward":{"__proto__":{"value":1}},"inverse":{}}]}',
    ),
  ])
    expect(readHistoryDelta(value)).toBeNull();
});

test('a label that quotes a long text is cut off, not refused', () => {
  const entry = { label: `Move ${'Celadon '.repeat(100)}`, forward: {}, inverse: {} };
  const read = readHistory({ done: [entry], undone: [] });
  expect(read).toHaveProperty('history');
  expect((read as { history: History }).history.done[0]!.label).toHaveLength(200);
});

test('undoing everything gives the first document byte for byte, redoing all the last', () => {
  fc.assert(
    fc.property(steps, (list) => {
      const newId = counter();
      const first = withStill(newId);
      const text = JSON.stringify(first);
      let state = run(list, first, newId);
      const last = JSON.stringify(state.project);
      const count = state.history.done.length;
      for (let i = 0; i < count; i++) state = undo(state);
      expect(JSON.stringify(state.project)).toBe(text);
      // As after a reload: history is plain data.
      state = JSON.parse(JSON.stringify(state)) as Versioned;
      for (let i = 0; i < count; i++) state = redo(state);
      expect(JSON.stringify(state.project)).toBe(last);
      expect(JSON.stringify(goToStep(state, 0).project)).toBe(text);
    }),
    RUNS,
  );
});
