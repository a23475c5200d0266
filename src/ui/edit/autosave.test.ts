import { counter, demoProject } from '@/core/edit/fixture';
import { EMPTY_HISTORY } from '@/core/edit/history';
import { savesDone, startAutosave } from './autosave';
import { createEditor } from './store';

const open = () => {
  const project = demoProject(counter());
  return createEditor({
    ...{ id: 'p', name: 'P', project, history: EMPTY_HISTORY, revision: 7, suggestion: null },
    notes: [],
  });
};
const refuse = (status: number, detail: string) =>
  new Response(JSON.stringify({ detail }), { status });

let sent: { revision: number }[] = [];
let answers: (() => Response | Promise<Response>)[] = [];
beforeEach(() => {
  jest.useFakeTimers();
  sent = [];
  answers = [];
  const nothing = () => undefined;
  Object.assign(globalThis, {
    window: { addEventListener: nothing, removeEventListener: nothing },
    fetch: (_path: string, { body }: { body?: string }) => {
      if (body) sent.push(JSON.parse(body) as { revision: number });
      const answer = answers.shift();
      return Promise.resolve(answer ? answer() : Response.json({ revision: 7 + sent.length }));
    },
  });
});
afterEach(() => jest.useRealTimers());

const pass = async (ms: number) => {
  await jest.advanceTimersByTimeAsync(ms);
  await savesDone();
};
const paint = (store: ReturnType<typeof open>, background: string) =>
  store.getState().apply('change-canvas', { change: { background } });

test('an edit is saved after a pause, from the revision that was answered last', async () => {
  const store = open();
  const stop = startAutosave(store);
  paint(store, '#111111');
  paint(store, '#222222');
  await pass(600);
  expect(store.getState()).toMatchObject({ save: 'saved', revision: 8 });
  paint(store, '#333333');
  await pass(600);
  expect(sent.map((s) => s.revision)).toEqual([7, 8]);
  stop();
});

test('a save that is refused says why and is not repeated until something is changed', async () => {
  const store = open();
  const stop = startAutosave(store);
  answers = [() => refuse(422, 'The project was not saved: /lanes/0 is odd.')];
  paint(store, '#111111');
  await pass(600);
  expect(store.getState()).toMatchObject({
    save: 'refused',
    saveFault: 'The project was not saved: /lanes/0 is odd.',
  });
  await pass(60_000);
  expect(sent).toHaveLength(1);
  paint(store, '#222222');
  await pass(600);
  expect(store.getState()).toMatchObject({ save: 'saved', saveFault: null });
  stop();
});

test('a save that is too large lets go of the older half of undo, not of the work', async () => {
  const store = open();
  const stop = startAutosave(store);
  answers = [() => refuse(413, 'The request is larger than 24 MB.')];
  for (const color of ['#111111', '#222222', '#333333', '#444444']) paint(store, color);
  await pass(600);
  await pass(100);
  expect(store.getState()).toMatchObject({ save: 'saved', saveFault: null });
  expect(store.getState().history.done).toHaveLength(2);
  expect(store.getState().project.canvas.background).toBe('#444444');
  answers = Array.from({ length: 9 }, () => () => refuse(413, 'The request is larger than 24 MB.'));
  paint(store, '#555555');
  await pass(600);
  await pass(1000);
  expect(store.getState()).toMatchObject({ save: 'refused', history: { done: [], undone: [] } });
  stop();
});

test('a server that is away is asked again; a newer revision elsewhere ends it', async () => {
  const store = open();
  const stop = startAutosave(store);
  answers = [
    () => Promise.reject(new TypeError('fetch failed')),
    () => refuse(503, 'The database is in use.'),
    () => refuse(409, 'This project was changed in another tab.'),
  ];
  paint(store, '#111111');
  await pass(600);
  expect(store.getState().save).toBe('failed');
  await pass(4100);
  expect(store.getState()).toMatchObject({ save: 'failed', saveFault: 'The database is in use.' });
  await pass(4100);
  expect(store.getState().save).toBe('stale');
  await pass(60_000);
  expect(sent).toHaveLength(3);
  stop();
});

test('a save that was done although its answer never came is this tab’s own, not another’s', async () => {
  const store = open();
  const stop = startAutosave(store);
  let stored: unknown;
  answers = [
    () => {
      stored = store.getState().project;
      return Promise.reject(new TypeError('fetch failed'));
    },
    () => refuse(409, 'This project was changed in another tab.'),
    () => Response.json({ revision: 8, project: structuredClone(stored) }),
  ];
  paint(store, '#111111');
  await pass(600);
  paint(store, '#222222');
  await pass(10_000);
  expect(store.getState()).toMatchObject({ save: 'saved', saveFault: null });
  expect(sent.at(-1)).toMatchObject({
    revision: 8,
    project: { canvas: { background: '#222222' } },
  });
  stop();
});

test('what was edited while a save was refused is saved by itself', async () => {
  const store = open();
  const stop = startAutosave(store);
  answers = [
    () => {
      paint(store, '#222222');
      return refuse(422, 'The project was not saved.');
    },
  ];
  paint(store, '#111111');
  await pass(2000);
  expect(store.getState().save).toBe('saved');
  expect(sent).toHaveLength(2);
  stop();
});
