import { rmSync } from 'node:fs';
import { scratchFolder } from './testing/media';

const folder = scratchFolder();
process.env.VISTUM_DATA = folder;

import { doEdit, EMPTY_HISTORY, undo } from '@/core/edit/history';
import { changeCanvas } from '@/core/edit/settings';
import { closeDatabase } from './db/connection';
import { openProject, saveProject } from './documents/documents';
import {
  duplicateProject,
  listProjects,
  newProject,
  renameProject,
  setProjectDeleted,
} from './projects';
import { localContext, type ServerContext } from './context';

let context: ServerContext;
beforeAll(async () => {
  context = await localContext();
});

const RATE = { num: 30, den: 1 };

afterAll(async () => {
  await closeDatabase();
  rmSync(folder, { recursive: true, force: true });
});

test('a project is saved with its history and opened again just so', async () => {
  const id = await newProject(context, '  Glazes  ', 1920, 1080, RATE);
  const opened = await openProject(context, id);
  expect(opened.name).toBe('Glazes');
  const edited = doEdit(opened, 'Background', (draft) =>
    changeCanvas(draft, { background: '#abcdef' }),
  );
  expect(await saveProject(context, id, edited.project, edited.history, opened.revision)).toBe(
    opened.revision + 1,
  );
  const again = await openProject(context, id);
  expect(again.project).toEqual(edited.project);
  expect(undo(again).project).toEqual(opened.project);
});

test('a save that continues an old revision is refused and changes nothing', async () => {
  const id = await newProject(context, 'Two tabs', 1280, 720, RATE);
  const { project, revision } = await openProject(context, id);
  const first = doEdit({ project, history: EMPTY_HISTORY }, 'a', (draft) =>
    changeCanvas(draft, { background: '#111111' }),
  );
  const second = doEdit({ project, history: EMPTY_HISTORY }, 'b', (draft) =>
    changeCanvas(draft, { background: '#222222' }),
  );
  const results = await Promise.allSettled(
    [first, second].map((s) => saveProject(context, id, s.project, s.history, revision)),
  );
  expect(results.map((r) => r.status).sort()).toEqual(['fulfilled', 'rejected']);
  const refused = results.find((r) => r.status === 'rejected') as PromiseRejectedResult;
  expect(refused.reason).toMatchObject({
    status: 409,
    message: expect.stringMatching(/another tab/) as string,
  });
  expect((await openProject(context, id)).revision).toBe(revision + 1);
});

test('an unsound document is refused with its faults', async () => {
  const id = await newProject(context, 'Faults', 1280, 720, RATE);
  const { project, revision } = await openProject(context, id);
  await expect(
    saveProject(
      context,
      id,
      { ...project, canvas: { ...project.canvas, width: 13 } },
      EMPTY_HISTORY,
      revision,
    ),
  ).rejects.toMatchObject({
    status: 422,
    details: { faults: [{ path: '/canvas/width' }, {}] },
  });
  expect((await openProject(context, id)).project).toEqual(project);
});

test('rename, duplicate, delete and its undo', async () => {
  const id = await newProject(context, 'Original', 1280, 720, RATE);
  await renameProject(context, id, 'Renamed');
  const copy = await duplicateProject(context, id);
  expect((await openProject(context, copy)).name).toBe('Renamed (copy)');
  await setProjectDeleted(context, id, true);
  await expect(openProject(context, id)).rejects.toMatchObject({ status: 404 });
  expect((await listProjects(context)).map((p) => p.id)).not.toContain(id);
  await setProjectDeleted(context, id, false);
  expect((await openProject(context, id)).name).toBe('Renamed');
  await expect(renameProject(context, id, '   ')).rejects.toMatchObject({ status: 400 });
  await expect(newProject(context, 'x', 8, 8, RATE)).rejects.toMatchObject({ status: 400 });
});
