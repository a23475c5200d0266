import { createProject } from '@/core/project/create';
import { rateFromNumber } from '@/core/time/ticks';
import { checkSave, type Storable } from './check';
import { checkSaveAside, checkStoredAside, endChecks } from './check-pool';

afterAll(endChecks);

const body = (change: object = {}) => {
  const project = structuredClone(createProject(1920, 1080, rateFromNumber(30)));
  project.steps = Array.from({ length: 600 }, (_, i) => ({
    ...{
      id: `step-${i}`,
      start: null,
      title: `Step ${i}`,
      narration: 'Kilnbook opens. '.repeat(12),
    },
    ...{ action: '', notes: '' },
  }));
  const history = { done: [], undone: [] };
  return Buffer.from(JSON.stringify({ revision: 3, project: { ...project, ...change }, history }));
};

test('a large document is checked in a thread, with what a small one is checked with', async () => {
  const bytes = body();
  expect(bytes.length).toBeGreaterThan(100_000);
  const here = checkSave(bytes, { depth: 32, values: 1e6 }, {}) as Storable;
  const there = (await checkSaveAside(bytes, {})) as Storable;
  expect({ ...there, packed: Buffer.from(there.packed) }).toEqual({
    ...here,
    packed: Buffer.from(here.packed),
  });
  const stored = await checkStoredAside(here.document, '{"done":[],"undone":[]}', {});
  expect(stored).toMatchObject({ document: here.document, notes: [] });
});

test('one with more faults than anybody reads is given up in time, and the next is checked all the same', async () => {
  process.env.VISTUM_MAX_CHECK_SECONDS = '0.3';
  const wrong = Array.from({ length: 200_000 }, (_, i) => ({ id: i, wrong: true }));
  const bytes = body({ callouts: wrong });
  let beats = 0;
  const timer = setInterval(() => beats++, 20);
  await expect(checkSaveAside(bytes, {})).rejects.toMatchObject({ code: 'busy-checking' });
  clearInterval(timer);
  delete process.env.VISTUM_MAX_CHECK_SECONDS;
  // This thread had turns meanwhile: none, had it checked by itself. How many, the machine says.
  expect(beats).toBeGreaterThan(0);
  expect(await checkSaveAside(body(), {})).toMatchObject({ revision: 3 });
});
