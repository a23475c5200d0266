import { rmSync } from 'node:fs';
import { scratchFolder } from '../testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = folder;

import { doEdit, undo, type Versioned } from '@/core/edit/history';
import { historyDelta } from '@/core/edit/history-delta';
import { closeDatabase } from '../db/connection';
import { newProject } from '../projects';
import { writeCheckpoint } from './checkpoint';
import { findProject, openLastGood, openProject, saveProject } from './documents';
import { keepLive } from './live';
import { readChanges, saveChange } from './save-change';
import { endChecks } from './check-pool';
import { localContext, type ServerContext } from '../context';

let context: ServerContext;
beforeAll(async () => {
  context = await localContext();
});

const rate = { num: 30, den: 1 };
let id = '';
beforeEach(async () => {
  id = await newProject(context, 'Changed', 1280, 720, rate);
});
afterAll(async () => {
  await endChecks();
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

const painted = (state: Versioned, background: string): Versioned =>
  doEdit(state, 'Background', (draft) => void (draft.canvas.background = background));
const wire = (value: unknown): unknown => JSON.parse(JSON.stringify(value));
let keys = 0;

/** Saves what leads from one state to the next. */
async function save(before: Versioned & { revision: number }, after: Versioned, key?: string) {
  const delta = wire(historyDelta(before, after));
  const sent = { base: before.revision, key: key ?? `key-number-${keys++}`, delta };
  return { ...after, revision: await saveChange(context, id, sent) };
}
/** A server that was started anew has nothing in memory. */
const forget = () => keepLive(id, -1, null as never);

test('changes are saved one by one, and what is opened is the last of them, with all of its undo', async () => {
  let state: Versioned & { revision: number } = await openProject(context, id);
  for (const color of ['#111111', '#222222', '#333333'])
    state = await save(state, painted(state, color));
  state = await save(state, undo(state));
  for (const again of [forget, () => undefined]) {
    again();
    const open = await openProject(context, id);
    expect(open).toMatchObject({ revision: 5, project: state.project, history: state.history });
  }
  // A server that was started anew goes on from there.
  forget();
  state = await save(state, painted(state, '#444444'));
  expect((await openProject(context, id)).project.canvas.background).toBe('#444444');
  await writeCheckpoint(context, id);
  expect(await findProject(context, id)).toMatchObject({ revision: 6, checkpoint: 6 });
  forget();
  expect(await openProject(context, id)).toMatchObject({
    project: state.project,
    history: state.history,
  });
});

test('the document is neither read nor written by a save, and the project’s summary is new all the same', async () => {
  const first = await save(
    await openProject(context, id),
    painted(await openProject(context, id), '#111111'),
  );
  const { sequelize, projects } = context.db;
  const before = String((await projects.findByPk(id))!.document);
  const asked = jest.spyOn(sequelize, 'query');
  await save(
    first,
    doEdit(first, 'Size', (draft) => void (draft.canvas.width = 1920)),
  );
  const statements = asked.mock.calls.map(([sql]) => JSON.stringify(sql));
  asked.mockRestore();
  expect(statements.some((sql) => sql.includes('`document`'))).toBe(false);
  const row = (await projects.findByPk(id))!;
  expect(String(row.document)).toBe(before);
  expect(row).toMatchObject({ width: 1920, revision: 3, checkpoint: 1 });
});

test('a save that is sent twice is done once; another one for the same revision is refused', async () => {
  const open = await openProject(context, id);
  const after = painted(open, '#111111');
  const one = await save(open, after, 'key-sent-twice');
  expect(await save(open, after, 'key-sent-twice')).toEqual(one);
  expect((await findProject(context, id)).revision).toBe(2);
  await expect(save(open, after)).rejects.toMatchObject({ status: 409 });
  // Of many at once for one revision, one is done.
  const all = await Promise.allSettled(
    Array.from({ length: 8 }, (_, i) => save(one, painted(one, `#00000${i}`))),
  );
  expect(all.filter((a) => a.status === 'fulfilled')).toHaveLength(1);
  expect((await findProject(context, id)).revision).toBe(3);
});

test('a change that does not fit, is none, or leads to what is not sound changes nothing', async () => {
  const open = await openProject(context, id);
  const bad: [unknown, number][] = [
    [{ drop: 0, keep: 5, add: [], done: 5 }, 422],
    [
      {
        drop: 0,
        keep: 0,
        add: [{ label: 'x', forward: { lanes: { steps: [99] } }, inverse: {} }],
        done: 1,
      },
      422,
    ],
    [
      {
        drop: 0,
        keep: 0,
        add: [{ label: 'x', forward: { constructor: { value: 1 } }, inverse: {} }],
        done: 1,
      },
      400,
    ],
    [null, 400],
    ['x', 400],
    [
      wire(
        historyDelta(
          open,
          doEdit(open, 'Odd', (draft) => void (draft.canvas.width = 1281)),
        ),
      ),
      422,
    ],
  ];
  for (const [delta, status] of bad)
    await expect(
      saveChange(context, id, { base: 1, key: 'key-of-bad-one', delta }),
    ).rejects.toMatchObject({
      status,
    });
  expect(await openProject(context, id)).toEqual(open);
});

test('a tab that is behind hears what was changed; where that is not kept, that it has to read the whole', async () => {
  const open = await openProject(context, id);
  const one = await save(open, painted(open, '#111111'));
  const two = await save(one, painted(one, '#222222'));
  const { revision, deltas } = await readChanges(context, id, 1);
  expect([revision, deltas!.length]).toEqual([3, 2]);
  expect((await readChanges(context, id, 3)).deltas).toEqual([]);
  // A document that came whole does not follow from changes.
  await saveProject(context, id, two.project, two.history, 3);
  expect(await readChanges(context, id, 1)).toEqual({ revision: 4, deltas: null });
  expect((await readChanges(context, id, 4)).deltas).toEqual([]);
  const back = await openProject(context, id);
  expect((await save(back, painted(back, '#333333'))).revision).toBe(5);
});

test('a document that is damaged takes nothing along that was changed since it was written whole', async () => {
  let state: Versioned & { revision: number } = await openProject(context, id);
  for (const color of ['#111111', '#222222']) state = await save(state, painted(state, color));
  const { projects } = context.db;
  await projects.update({ document: '{"cut' }, { where: { id } });
  forget();
  await expect(openProject(context, id)).rejects.toMatchObject({
    code: 'project-damaged',
    details: { lastGood: { revision: 3 } },
  });
  await openLastGood(context, id, 3);
  expect((await openProject(context, id)).project).toEqual(state.project);
});

test.each<[string, (revision: number) => Promise<unknown>]>([
  [
    'is cut off',
    async (revision) => {
      const { changes } = context.db;
      await changes.update({ delta: '{"drop":0,"ke' }, { where: { projectId: id, revision } });
    },
  ],
  [
    'is missing',
    async (revision) => {
      const { changes } = context.db;
      await changes.destroy({ where: { projectId: id, revision } });
    },
  ],
])(
  'where a saved change %s, the project says so and opens at the last good revision',
  async (_what, hurt) => {
    let state: Versioned & { revision: number } = await openProject(context, id);
    for (const color of ['#111111', '#222222', '#333333'])
      state = await save(state, painted(state, color));
    await hurt(3);
    forget();
    const error = await openProject(context, id).then(
      () => null,
      (e: unknown) => e as { code: string; details: { lastGood: { revision: number } } },
    );
    expect(error).toMatchObject({ code: 'project-damaged' });
    const { revision } = error!.details.lastGood;
    expect(revision).toBeLessThan(4);
    expect(await openLastGood(context, id, revision)).toBe(5);
    const good = await openProject(context, id);
    expect(good.project.canvas.background).toBe(revision === 2 ? '#111111' : '#1e2a32');
    expect((await save(good, painted(good, '#555555'))).revision).toBe(6);
  },
);
