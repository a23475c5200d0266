import { rmSync } from 'node:fs';
import fc from 'fast-check';
import { scratchFolder } from '../testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = folder;

import { doEdit, goToStep, redo, undo, type Versioned } from '@/core/edit/history';
import { historyDelta } from '@/core/edit/history-delta';
import { localContext, type ServerContext } from '../context';
import { closeDatabase } from '../db/connection';
import { newProject } from '../projects';
import { writeCheckpoint } from './checkpoint';
import { openProject } from './documents';
import { keepLive } from './live';
import { saveChange } from './save-change';
import { storedSteps } from './stored-steps';

let context: ServerContext;
let id = '';
beforeAll(async () => {
  context = await localContext();
});
beforeEach(async () => {
  id = await newProject(context, 'Steps', 1280, 720, { num: 30, den: 1 });
});
afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

type Saved = Versioned & { readonly revision: number };
let colors = 0;
const painted = (state: Versioned): Versioned =>
  doEdit(state, 'Background', (draft) => {
    draft.canvas.background = `#${(++colors).toString(16).padStart(6, '0')}`;
  });

async function save(before: Saved, after: Versioned): Promise<Saved> {
  const delta = historyDelta(before, after);
  const sent = { base: before.revision, key: `key-of-step-${colors}`, delta };
  return { ...after, revision: await saveChange(context, id, sent) };
}
const rows = () => context.db.steps.findAll({ where: { projectId: id }, raw: true });
/** A server that was started anew has nothing in memory. */
const forget = () => keepLive(id, -1, null as never);

test('whatever was done, undone, written whole and opened anew: the rows are the history', async () => {
  const move = fc.oneof(
    fc.record({ kind: fc.constant('edit' as const), count: fc.integer({ min: 1, max: 4 }) }),
    fc.record({ kind: fc.constant('go' as const), count: fc.integer({ min: 0, max: 12 }) }),
    fc.record({ kind: fc.constant('write' as const), count: fc.constant(0) }),
    fc.record({ kind: fc.constant('restart' as const), count: fc.constant(0) }),
  );
  await fc.assert(
    fc.asyncProperty(fc.array(move, { minLength: 3, maxLength: 14 }), async (moves) => {
      id = await newProject(context, 'Steps', 1280, 720, { num: 30, den: 1 });
      let state: Saved = await openProject(context, id);
      for (const { kind, count } of moves) {
        if (kind === 'edit')
          for (let i = 0; i < count; i++) state = await save(state, painted(state));
        else if (kind === 'go') {
          const there = goToStep(state, count);
          if (there !== state) state = await save(state, { ...there });
        } else if (kind === 'write') await writeCheckpoint(context, id);
        else forget();
        const { project, history, revision } = state;
        expect(await openProject(context, id)).toMatchObject({ project, history, revision });
      }
    }),
    { numRuns: 12 },
  );
});

test('writing whole adds the steps that are new, and takes away those that are gone', async () => {
  let state: Saved = await openProject(context, id);
  for (let i = 0; i < 20; i++) state = await save(state, painted(state));
  await writeCheckpoint(context, id);
  expect(await rows()).toHaveLength(20);
  const { steps } = context.db;
  const written = jest.spyOn(steps, 'bulkCreate');
  const counts = () => written.mock.calls.map(([all]) => all.length);
  state = await save(state, painted(state));
  await writeCheckpoint(context, id);
  expect(counts()).toEqual([1]);
  // Undone steps stay until something else is done in their place.
  state = await save(state, { ...undo(undo(undo(state))) });
  await writeCheckpoint(context, id);
  expect([counts(), (await rows()).length]).toEqual([[1], 21]);
  state = await save(state, { ...redo(state) });
  state = await save(state, painted(state));
  await writeCheckpoint(context, id);
  expect([counts(), (await rows()).length]).toEqual([[1, 1], 20]);
  written.mockRestore();
  forget();
  expect((await openProject(context, id)).history).toEqual(state.history);
});

test('a history out of all proportion loses its oldest steps, also those that were undone', () => {
  const step = (label: string, bytes: number) => ({
    label,
    forward: {},
    inverse: { name: { value: 'x'.repeat(bytes) } },
  });
  const labels = ({ steps }: { steps: readonly string[] }) =>
    steps.map((text) => (JSON.parse(text) as { label: string }).label).join('');
  const MB = 1 << 20;
  const done = ['a', 'b', 'c'].map((label) => step(label, 3 * MB));
  const kept = storedSteps({ done, undone: [] });
  expect([labels(kept), kept.done]).toEqual(['bc', 2]);
  const undone = ['f', 'e', 'd'].map((label) => step(label, 3 * MB));
  const both = storedSteps({ done, undone });
  expect([labels(both), both.done]).toEqual(['ef', 0]);
  expect(storedSteps({ done: [step('a', 9 * MB)], undone: [] })).toEqual({ steps: [], done: 0 });
});
