import fc from 'fast-check';
import { counter, demoProject, frame, SOURCES } from '@/core/edit/fixture';
import { EMPTY_HISTORY, undo, type Versioned } from '@/core/edit/history';
import { applyHistoryDelta, readHistoryDelta, type HistoryDelta } from '@/core/edit/history-delta';
import { validateProject } from '@/core/project/validate';
import { savesDone, startAutosave, type Autosave } from './autosave';
import { createEditor } from './session/create-editor';

interface Body extends Partial<Versioned> {
  readonly base?: number;
  readonly revision?: number;
  readonly key?: string;
  readonly delta?: HistoryDelta;
}

const refuse = (status: number, detail: string) =>
  new Response(JSON.stringify({ detail }), { status });
const FIRST = 7;

/** What the server does with saves, in memory. */
class FakeServer {
  revision = FIRST;
  state: Versioned = { project: demoProject(counter()), history: EMPTY_HISTORY };
  readonly deltas = new Map<number, { key: string; delta: HistoryDelta }>();
  readonly sent: { method: string; body: Body }[] = [];
  /** Answers that come instead of the server's own; the save is not done. */
  readonly instead: (() => Response | Promise<Response>)[] = [];
  /** So many saves are done, and their answers lost. */
  losing = 0;

  readonly fetch = async (path: string, init: { method?: string; body?: string } = {}) => {
    const { method = 'GET', body: text } = init;
    await Promise.resolve();
    if (method === 'GET') return this.read(path);
    const body = JSON.parse(text!) as Body;
    this.sent.push({ method, body });
    const other = this.instead.shift();
    if (other) return other();
    const answer = method === 'POST' ? this.change(body) : this.replace(body);
    if (this.losing > 0) {
      this.losing--;
      throw new TypeError('fetch failed');
    }
    return answer;
  };

  private read(path: string): Response {
    const since = /since=(\d+)/.exec(path);
    if (!since) return Response.json({ revision: this.revision, ...this.state });
    const deltas = [];
    for (let r = Number(since[1]) + 1; r <= this.revision; r++) deltas.push(this.deltas.get(r));
    const whole = deltas.every((d) => d !== undefined);
    return Response.json({
      revision: this.revision,
      deltas: whole ? deltas.map((d) => d.delta) : null,
    });
  }

  private change({ base, key, delta }: Body): Response {
    if (base !== this.revision)
      return this.deltas.get(base! + 1)?.key === key
        ? Response.json({ revision: base! + 1 })
        : refuse(409, 'This project was changed in another tab.');
    const next = applyHistoryDelta(this.state, readHistoryDelta(delta)!);
    if ('faults' in validateProject(structuredClone(next.project), SOURCES))
      return refuse(422, 'Not sound');
    this.deltas.set(++this.revision, { key: key!, delta: delta! });
    this.state = next;
    return Response.json({ revision: this.revision });
  }

  private replace({ revision, project, history }: Body): Response {
    if (revision !== this.revision) return refuse(409, 'This project was changed in another tab.');
    this.revision++;
    this.deltas.clear();
    this.state = { project: project!, history: history! };
    return Response.json({ revision: this.revision });
  }

  open() {
    const { project, history } = structuredClone(this.state);
    const store = createEditor({
      ...{ id: 'p', name: 'P', project, history, revision: this.revision, suggestion: null },
      notes: [],
    });
    store.setState({ sources: SOURCES });
    return store;
  }
}

let server: FakeServer;
const running: Autosave[] = [];
beforeEach(() => {
  jest.useFakeTimers();
  server = new FakeServer();
  const nothing = () => undefined;
  Object.assign(globalThis, {
    window: { addEventListener: nothing, removeEventListener: nothing },
    fetch: (path: string, init: object) => server.fetch(path, init),
  });
});
afterEach(() => {
  for (const autosave of running.splice(0)) autosave.stop();
  jest.useRealTimers();
});

const start = () => {
  const store = server.open();
  const autosave = startAutosave(store);
  running.push(autosave);
  return { store, autosave };
};
type Tab = ReturnType<typeof start>;

const pass = async (ms: number) => {
  await jest.advanceTimersByTimeAsync(ms);
  await savesDone();
};
const paint = ({ store }: Tab, background: string) =>
  store.getState().apply('change-canvas', { change: { background } });
const lane = ({ store }: Tab, kind: string) =>
  store.getState().project.lanes.find((l) => l.kind === kind)!;
const size = (tab: Tab, kind: string, gain: number) =>
  tab.store.getState().apply('change-lane', { laneId: lane(tab, kind).id, change: { gain } });
const bodies = () => server.sent.map(({ body }) => body);

test('an edit is saved after a pause, as what was done since the save before it', async () => {
  const tab = start();
  paint(tab, '#111111');
  paint(tab, '#222222');
  await pass(600);
  expect(tab.store.getState()).toMatchObject({ save: 'saved', revision: 8 });
  paint(tab, '#333333');
  await pass(600);
  expect(bodies().map((b) => [b.base, b.delta!.add.length])).toEqual([
    [7, 2],
    [8, 1],
  ]);
  tab.store.getState().undo();
  await pass(600);
  expect(bodies().at(-1)!.delta).toEqual({ drop: 0, keep: 3, add: [], done: 2 });
  const { project, history } = tab.store.getState();
  expect(server.state).toEqual({ project, history });
  expect(undo(server.state).project.canvas.background).toBe('#111111');
});

test('what is sent does not grow with the project or its history', async () => {
  const tab = start();
  for (let i = 10; i < 60; i++) paint(tab, `#1111${i}`);
  await pass(600);
  paint(tab, '#abcdef');
  await pass(600);
  expect(JSON.stringify(bodies().at(-1)).length).toBeLessThan(700);
});

test('a save that is refused says why and is not repeated until something is changed', async () => {
  const tab = start();
  const odd = () => refuse(422, 'The project was not saved: /lanes/0 is odd.');
  server.instead.push(odd, odd);
  paint(tab, '#111111');
  await pass(700);
  expect(tab.store.getState()).toMatchObject({
    save: 'refused',
    saveFault: 'The project was not saved: /lanes/0 is odd.',
  });
  await pass(60_000);
  // As what was done, and once more whole.
  expect(server.sent.map((s) => s.method)).toEqual(['POST', 'PUT']);
  paint(tab, '#222222');
  await pass(600);
  expect(tab.store.getState()).toMatchObject({ save: 'saved', saveFault: null });
});

test('a change that is too large, or does not fit, travels whole', async () => {
  for (const status of [413, 422]) {
    const tab = start();
    server.instead.push(() => refuse(status, 'Not so.'));
    paint(tab, `#${status}111`);
    await pass(700);
    expect(server.sent.at(-1)!.method).toBe('PUT');
    expect(tab.store.getState().save).toBe('saved');
    expect(server.state.project.canvas.background).toBe(`#${status}111`);
  }
});

test('a save that is too large lets go of the older half of undo, not of the work', async () => {
  const tab = start();
  const large = () => refuse(413, 'The request is larger than 24 MB.');
  server.instead.push(large, large);
  for (const color of ['#111111', '#222222', '#333333', '#444444']) paint(tab, color);
  await pass(600);
  await pass(100);
  expect(tab.store.getState()).toMatchObject({ save: 'saved', saveFault: null });
  expect(tab.store.getState().history.done).toHaveLength(2);
  expect(server.state.project.canvas.background).toBe('#444444');
  server.instead.push(...Array.from({ length: 12 }, () => large));
  paint(tab, '#555555');
  await pass(600);
  await pass(1000);
  expect(tab.store.getState()).toMatchObject({
    save: 'refused',
    history: { done: [], undone: [] },
  });
});

test('a server that is away is asked again with the same save; one whose answer was lost is not done twice', async () => {
  const tab = start();
  server.instead.push(() => refuse(503, 'The database is in use.'));
  paint(tab, '#111111');
  await pass(600);
  expect(tab.store.getState()).toMatchObject({
    save: 'failed',
    saveFault: 'The database is in use.',
  });
  server.losing = 1;
  await pass(4100);
  expect(tab.store.getState().save).toBe('failed');
  expect(server.revision).toBe(8);
  paint(tab, '#222222');
  await pass(10_000);
  expect(tab.store.getState()).toMatchObject({ save: 'saved', revision: 9 });
  const [first, second, third, fourth] = bodies();
  expect([second!.key, third!.key]).toEqual([first!.key, first!.key]);
  expect(fourth!.key).not.toBe(first!.key);
  expect(server.state.history.done).toHaveLength(2);
});

test('what another tab saved is taken over, and what was done here meanwhile brought together with it', async () => {
  const [one, two] = [start(), start()];
  size(one, 'voice', -5);
  await pass(600);
  two.autosave.heardOf(server.revision);
  await pass(10);
  expect(lane(two, 'voice').gain).toBe(-5);
  expect(two.store.getState()).toMatchObject({ save: 'saved', revision: 8 });
  expect(two.store.getState().history.done).toHaveLength(1);
  // Both at once, apart.
  size(one, 'voice', -7);
  size(two, 'music', -20);
  await pass(1500);
  one.autosave.heardOf(server.revision);
  two.autosave.heardOf(server.revision);
  await pass(3000);
  for (const tab of [one, two]) {
    expect([lane(tab, 'voice').gain, lane(tab, 'music').gain]).toEqual([-7, -20]);
    expect(tab.store.getState().save).toBe('saved');
  }
  expect(server.state.history.done).toHaveLength(3);
});

test('where both changed the same thing the later one says so and keeps its work', async () => {
  const [one, two] = [start(), start()];
  size(one, 'voice', -5);
  size(two, 'voice', -9);
  await pass(3000);
  const states = [one, two].map((tab) => tab.store.getState().save).sort();
  expect(states).toEqual(['saved', 'stale']);
  const stale = one.store.getState().save === 'stale' ? one : two;
  const own = lane(stale, 'voice').gain;
  stale.autosave.heardOf(99);
  await pass(60_000);
  expect(lane(stale, 'voice').gain).toBe(own);
  expect(server.revision).toBe(8);
});

test('changes that are no longer kept are made up for by the whole', async () => {
  const [one, two] = [start(), start()];
  paint(one, '#111111');
  await pass(600);
  server.deltas.clear();
  two.autosave.heardOf(server.revision);
  await pass(10);
  expect(two.store.getState()).toMatchObject({ save: 'saved', revision: 8 });
  expect(two.store.getState().project.canvas.background).toBe('#111111');
});

test('whatever two tabs do and whatever is lost on the way, in the end all who are not told of a conflict have what is saved', async () => {
  const doing = fc.record({
    who: fc.nat(1),
    what: fc.nat(4),
    value: fc.integer({ min: 1, max: 9 }),
    ms: fc.constantFrom(0, 30, 400, 700),
    trouble: fc.constantFrom('none', 'none', 'none', 'lost', 'away'),
    heard: fc.boolean(),
  });
  await fc.assert(
    fc.asyncProperty(fc.array(doing, { maxLength: 14 }), async (doings) => {
      server = new FakeServer();
      const tabs = [start(), start()];
      const tell = () => tabs.forEach(({ autosave }) => autosave.heardOf(server.revision));
      let marks = 0;
      for (const { who, what, value, ms, trouble, heard } of doings) {
        const tab = tabs[who]!;
        if (trouble === 'lost') server.losing++;
        if (trouble === 'away') server.instead.push(() => refuse(503, 'Away.'));
        if (what === 0) size(tab, 'voice', -value);
        else if (what === 1) size(tab, 'music', -value);
        else if (what === 2) tab.store.getState().undo();
        else if (what === 3) tab.store.getState().redo();
        else
          tab.store.getState().apply('add-marker', {
            marker: { id: `m${marks}`, time: frame(marks++), name: 'M', color: '#8e3f66' },
          });
        if (heard) tell();
        await pass(ms);
      }
      server.losing = 0;
      server.instead.length = 0;
      for (let i = 0; i < 8; i++) {
        await pass(5000);
        tell();
      }
      for (const { store, autosave } of tabs) {
        const { save, project, history, revision } = store.getState();
        if (save !== 'stale')
          expect({ save, project, history, revision }).toEqual({
            save: 'saved',
            revision: server.revision,
            ...server.state,
          });
        autosave.stop();
      }
      expect(validateProject(structuredClone(server.state.project), SOURCES)).toHaveProperty(
        'project',
      );
      running.length = 0;
    }),
    { numRuns: 60 },
  );
}, 60_000);
