import { spawn, spawnSync } from 'node:child_process';
import { copyFileSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Ajv from 'ajv';
import { UNPOSED } from '@/core/callout/keyframes';
import { USUAL_MOTION } from '@/core/callout/motion';
import type { Project } from '@/core/project/model';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import { RawDatabase } from '@/server/db/raw';
import { endChecks } from '@/server/documents/check-pool';
import { ffmpeg, numberedFrames, readNumbers, scratchFolder } from '@/server/testing/media';
import { makePointed } from '@/server/testing/pointed';
import { runCall } from './run';

const folder = scratchFolder();
const data = join(folder, 'data');
const env = Object.assign(process.env, { VISTUM_DATA: data, VISTUM_ROOT: process.cwd() });
const file = (name: string) => join(folder, name);

/** A call as the command makes it, without its process. */
async function vistum(...args: string[]) {
  let stdout = '';
  let stderr = '';
  const status = await runCall([...args, '--json'], {
    out: (text) => (stdout += text),
    err: (text) => (stderr += text),
    isLive: false,
    signal: new AbortController().signal,
  });
  return { status, stderr, json: stdout.trim() ? (JSON.parse(stdout) as never) : null };
}
async function done<T>(...args: string[]): Promise<T> {
  const { status, json, stderr } = await vistum(...args);
  expect([status, stderr.includes('unexpected')]).toEqual([0, false]);
  return json as T;
}

let project = '';
beforeAll(async () => {
  mkdirSync(file('odd \'name" dir'));
  ffmpeg(
    ...numberedFrames(12, '30', '1280x720'),
    '-f',
    'lavfi',
    '-i',
    'sine=330:d=12',
    '-c:v',
    'libx264',
    '-preset',
    'ultrafast',
    '-pix_fmt',
    'yuv420p',
    '-c:a',
    'aac',
    file('screen.mp4'),
  );
  copyFileSync(file('screen.mp4'), file('odd \'name" dir/my "screen" \'take\'.mp4'));
  const samples = Array.from({ length: 600 }, (_, i) => [i * 20, 200 + (i > 150 ? 300 : 0), 300]);
  const events = [4000, 5000, 6200].flatMap((t) => [
    { t, type: 'down' },
    { t: t + 80, type: 'up' },
  ]);
  writeFileSync(
    file('track.json'),
    JSON.stringify({
      format: 'vistum-pointer',
      version: 1,
      width: 1280,
      height: 720,
      samples,
      events,
    }),
  );
  const made = ['new', '--name', 'A tutorial', '--size', '640x360', '--fps', '30'];
  ({ project } = await done<{ project: string }>(...made));
});
afterAll(async () => {
  await endChecks();
  rmSync(folder, { recursive: true, force: true });
});

test('the command’s process: the answer on stdout, refusals on stderr, and the exit codes', async () => {
  const call = (...args: string[]) =>
    spawnSync(process.execPath, ['dist/vistum.mjs', ...args], { env, encoding: 'utf8' });
  const shown = call('show', project, '--json');
  expect([shown.status, shown.stderr]).toEqual([0, '']);
  expect(JSON.parse(shown.stdout)).toEqual(await done<Project>('show', project));
  expect(call('show', 'nothing')).toMatchObject({
    ...{ status: 1, stdout: '' },
    stderr: expect.stringMatching(/^There is no project with that id.*\n$/) as string,
  });
  expect(call('fly')).toMatchObject({ status: 2, stdout: '' });
});

test('a recording with quotes and spaces in its path is imported, with its track, and placed', async () => {
  const answer = await done<Record<string, unknown>>(
    'import',
    project,
    file('odd \'name" dir/my "screen" \'take\'.mp4'),
    '--role',
    'screen',
    '--pointer',
    file('track.json'),
    '--place',
  );
  expect(answer).toMatchObject({
    kind: 'video',
    role: 'screen',
    width: 1280,
    height: 720,
    frameRate: 30,
    duration: 12,
  });
  expect(typeof answer.clip).toBe('string');
});

test('edits are listed, done by id as one step of undo each, and refused with a sentence', async () => {
  const edits = await done<{ id: string; args: { properties: object } }[]>('edit', '--list');
  expect(edits.length).toBeGreaterThan(50);
  expect(edits.find((e) => e.id === 'split-clip')!.args.properties).toHaveProperty('time');
  const edit = (id: string, args: object) =>
    vistum('edit', project, id, '--args', JSON.stringify(args));
  const marker = { id: 'm1', time: 705_600_000, name: 'Stir', color: '#8e3f66' };
  const { json } = await edit('add-marker', { marker });
  expect(json).toMatchObject({ project, result: null });
  expect((await done<Project>('show', project)).markers).toEqual([marker]);
  expect((await edit('remove-marker', { id: 'm1' })).status).toBe(0);
  expect((await done<Project>('show', project)).markers).toEqual([]);
  // Refused: an edit that is none, arguments that are wrong, what can't be done, and no JSON.
  expect(await edit('paint-clip', {})).toMatchObject({
    status: 1,
    stderr: expect.stringContaining('There is no edit "paint-clip"'),
  });
  expect((await edit('constructor', {})).status).toBe(1);
  expect((await edit('split-clip', { clipId: 7 })).stderr).toMatch(/time/);
  expect((await edit('split-clip', { clipId: 'gone', time: 5 })).status).toBe(1);
  expect((await vistum('edit', project, 'split-clip', '--args', '{')).status).toBe(2);
});

test('analyse wants a recording of the project, and a kind that there is', async () => {
  expect(await vistum('analyse', project, 'gone')).toMatchObject({
    status: 1,
    stderr: expect.stringMatching(/recording|footage/i),
  });
  expect((await vistum('analyse', project, 'gone', '--kind', 'colours')).status).toBe(2);
  expect((await vistum('analyse', project)).status).toBe(2);
});

test('analyse writes the pointer with what was mended of it by hand', async () => {
  makePointed(file('pointed.mp4'), 4);
  const { project: own } = await done<{ project: string }>('new', '--name', 'Pointed');
  const { footage } = await done<{ footage: string }>(
    ...['import', own, file('pointed.mp4'), '--role', 'screen'],
  );
  const out = file('pointer.json');
  const written = async () => {
    await done('analyse', own, footage, '--kind', 'pointer', '--out', out);
    return JSON.parse(readFileSync(out, 'utf8')) as PointerTrack;
  };
  const found = await written();
  expect(found).toMatchObject({ version: 2, source: 'found' });
  const correction = { kind: 'hidden', from: 1000, to: 2000 };
  const args = JSON.stringify({ footageId: footage, correction });
  await done('edit', own, 'correct-pointer', '--args', args);
  const mended = await written();
  expect(mended.source).toBe('corrected');
  expect(mended.hidden).toContainEqual([1000, 2000]);
  expect(mended.samples).toEqual(found.samples);
});

test('plan gives framings within the sharp limit and saves them', async () => {
  const framings = await done<
    { start: number; end: number; magnification: number; rect: { width: number } }[]
  >('plan', project);
  expect(framings.length).toBeGreaterThan(0);
  for (const f of framings) expect(f.magnification).toBeLessThanOrEqual(2 + 1e-9);
  const shown = await done<Project>('show', project);
  expect(shown.framings).toHaveLength(framings.length);
  // What the program writes is what the documents describe.
  const schema = (name: string) =>
    JSON.parse(readFileSync(`docs/schemas/${name}.schema.json`, 'utf8')) as object;
  const ajv = new Ajv({ strict: false });
  expect(ajv.validate(schema('project'), shown)).toBe(true);
  expect(
    ajv.validate(
      schema('pointer'),
      JSON.parse(readFileSync('demo/media/kilnbook-screen.pointer.json', 'utf8')),
    ),
  ).toBe(true);
});

test('plan explains what each view is for and what it costs, and refuses a taste that is none', async () => {
  interface Explained {
    framings: { start: number }[];
    views: { whole: boolean; seen: { kind: string }[]; costs: Record<string, number> }[];
    total: number;
  }
  const { framings, views, total } = await done<Explained>('plan', project, '--explain');
  expect(views.filter(({ whole }) => !whole)).toHaveLength(framings.length);
  expect(views.flatMap(({ seen }) => seen.map(({ kind }) => kind))).toContain('press');
  const sum = views.reduce(
    (all, { costs }) => all + Object.values(costs).reduce((a, b) => a + b, 0),
    0,
  );
  expect(Math.abs(sum - total)).toBeLessThan(0.01 * 8 * views.length);
  for (const wrong of [
    ['--lively', '7'],
    ['--hold', 'long'],
    ['--limit', '0.5'],
  ])
    expect((await vistum('plan', project, ...wrong)).status).toBe(2);
  const calm = await done<object[]>('plan', project, '--lively', '0', '--range', '0-3');
  expect(calm.length).toBeLessThanOrEqual(framings.length);
});

test('apply takes a sound document and refuses a broken one whole, with the place of each fault', async () => {
  const document = await done<Project>('show', project);
  const changed = {
    ...document,
    framings: [],
    canvas: { ...document.canvas, background: '#102030' },
  };
  writeFileSync(file('sound.json'), JSON.stringify(changed));
  await done('apply', project, file('sound.json'));
  expect(await done<Project>('show', project)).toEqual(changed);
  writeFileSync(
    file('broken.json'),
    JSON.stringify({ ...changed, canvas: { ...changed.canvas, width: 7 }, steps: [{ id: 's' }] }),
  );
  const refused = await vistum('apply', project, file('broken.json'));
  expect(refused.status).toBe(1);
  expect(refused.stderr).toMatch(/\/canvas\/width/);
  expect(refused.stderr).toMatch(/\/steps\/0/);
  expect(await done<Project>('show', project)).toEqual(changed);
});

test('an example document that was written by hand from the description is accepted', async () => {
  const { footage } = await done<{ footage: string }>(
    'import',
    project,
    file('screen.mp4'),
    '--role',
    'screen',
  );
  const example = /```json example\n([\s\S]*?)```/.exec(
    readFileSync('docs/formats.md', 'utf8'),
  )![1]!;
  writeFileSync(file('example.json'), example.replaceAll('FOOTAGE', footage));
  const other = (await done<{ project: string }>('new', '--name', 'By hand')).project;
  expect((await vistum('apply', other, file('example.json'))).stderr).toMatch(
    /footage that the project does not have/,
  );
  await done('apply', project, file('example.json'));
});

test('export and still show the same picture, frame for frame', async () => {
  const made = ['new', '--name', 'Export', '--size', '640x360'];
  const { project: again } = await done<{ project: string }>(...made);
  await done('import', again, file('screen.mp4'), '--role', 'screen', '--place');
  const answer = await done<{ frames: number; duration: number }>(
    'export',
    again,
    '--out',
    file('out.mp4'),
    '--quality',
    'high',
  );
  expect(answer).toMatchObject({ frames: 360, duration: 12, width: 640, height: 360 });
  expect(readNumbers(file('out.mp4'), 0.5)).toEqual(Array.from({ length: 360 }, (_, i) => i));
  await done('still', again, '--at', '7.35', '--out', file('still.png'));
  expect(readNumbers(file('still.png'), 0.5)).toEqual([220]);
});

test('what can be pressed in an export is told in a file beside it', async () => {
  const { project: id } = await done<{ project: string }>(
    ...['new', '--name', 'Pressed', '--size', '640x360'],
  );
  await done('import', id, file('screen.mp4'), '--role', 'screen', '--place');
  const callout = {
    ...{ id: 'link', kind: 'link', label: 'Help', target: { address: 'https://kilnbook.example' } },
    ...{ start: 705_600_000, end: 2 * 705_600_000, anchor: { to: 'frame' } },
    ...{ rect: { x: 64, y: 36, width: 128, height: 72 }, color: '#0e6b63', line: 0, corner: 0 },
    ...{ ...UNPOSED, ...USUAL_MOTION },
  };
  await done('edit', id, 'add-callout', '--args', JSON.stringify({ callout }));
  const out = file('pressed.mp4');
  const range = ['--range', '0.5-1.5'];
  expect(await done('export', id, '--out', out, ...range)).toMatchObject({
    links: `${out}.links.json`,
  });
  expect(JSON.parse(readFileSync(`${out}.links.json`, 'utf8'))).toEqual({
    version: 1,
    links: [
      {
        ...{ start: 0.5, end: 1, label: 'Help', to: { address: 'https://kilnbook.example' } },
        places: [{ from: 0.5, x: 0.1, y: 0.1, width: 0.2, height: 0.2 }],
      },
    ],
  });
  await done('edit', id, 'remove-span', '--args', JSON.stringify({ id: 'link' }));
  expect(await done('export', id, '--out', file('plain.mp4'), ...range)).not.toHaveProperty(
    'links',
  );
});

describe('refusals: exit 1 with one sentence, exit 2 for wrong usage', () => {
  test.each<[string, () => string[], number, RegExp]>([
    ['no verb', () => [], 2, /Name a verb/],
    ['an unknown verb', () => ['fly'], 2, /no verb "fly"/],
    ['a name that an object has anyway', () => ['constructor'], 2, /no verb/],
    ['a size that is none', () => ['new', '--name', 'x', '--size', 'big'], 2, /--size/],
    ['a project that is not there', () => ['show', 'nothing'], 1, /no project with that id/],
    ['a file that is not there', () => ['import', project, file('gone.mp4')], 1, /no file/],
    [
      'a kind of file that is not read',
      () => ['import', project, join(process.cwd(), 'package.json')],
      1,
      /not a kind of file/,
    ],
    [
      'a still beyond the end',
      () => ['still', project, '--at', '900', '--out', file('x.png')],
      1,
      /ends at/,
    ],
    [
      'a range outside the project',
      () => ['export', project, '--out', file('x.mp4'), '--range', '500-600'],
      1,
      /range/,
    ],
    [
      'an odd size',
      () => ['export', project, '--out', file('x.mp4'), '--size', '641x360'],
      1,
      /even numbers/,
    ],
  ])('%s', async (_name, args, code, message) => {
    const { status, stderr } = await vistum(...args());
    expect(status).toBe(code);
    if (code === 1) expect(stderr.trim().split('\n')).toHaveLength(1);
    expect(stderr.trim() || '').toMatch(message);
  });

  test('a sound brought as a screen is taken as voice, and it is said', async () => {
    ffmpeg('-f', 'lavfi', '-i', 'sine=440:r=44100:d=2', '-ac', '1', file('talk.wav'));
    const { json, status } = await vistum('import', project, file('talk.wav'), '--role', 'screen');
    expect(status).toBe(0);
    expect(json).toMatchObject({ kind: 'audio', role: 'voice' });
    expect(JSON.stringify(json)).toMatch(/sound only/);
  });

  test('a broken file leaves the project as it was', async () => {
    const before = await done<Project>('show', project);
    writeFileSync(file('text.mp4'), 'no video at all '.repeat(99));
    const { status, stderr } = await vistum('import', project, file('text.mp4'), '--place');
    expect(status).toBe(1);
    expect(stderr).toMatch(/not a video/);
    expect(await done<Project>('show', project)).toEqual(before);
  });
});

test('an export whose process is killed is finished by the next one, from where it was', async () => {
  const { lanes } = await done<Project>('show', project);
  const clipId = lanes.find(({ kind }) => kind === 'screen')!.clips[0]!.id;
  // Long enough that there is time between the first segment's end and that of the export.
  await done('edit', project, 'set-speed', '--args', JSON.stringify({ clipId, speed: 0.5 }));
  const args = ['dist/vistum.mjs', 'export', project, '--out', file('never.mp4')];
  const child = spawn(process.execPath, args, { env });
  let said = '';
  child.stderr.on('data', (d: Buffer) => (said += d.toString()));
  while (!/Frame [3-6]\d\d of/.test(said) && child.exitCode === null)
    await new Promise((resolve) => setTimeout(resolve, 20));
  child.kill('SIGKILL');
  const worker = spawn(process.execPath, ['dist/worker.mjs'], { env, stdio: 'ignore' });
  const jobs = await RawDatabase.open(join(data, 'vistum.sqlite'), 5000);
  // Who was killed says nothing more; this is what the clock would do fifteen seconds later.
  await jobs.run("UPDATE jobs SET leaseUntil = 0 WHERE type = 'export' AND status = 'running'");
  const read = () =>
    jobs.all<{ status: string; attempts: number }>(
      "SELECT status, attempts FROM jobs WHERE type = 'export' ORDER BY createdAt DESC LIMIT 1",
    );
  let [job] = await read();
  for (const end = Date.now() + 90_000; job?.status !== 'done' && Date.now() < end;) {
    await new Promise((resolve) => setTimeout(resolve, 100));
    [job] = await read();
  }
  await jobs.close();
  worker.kill('SIGTERM');
  expect(job).toEqual({ status: 'done', attempts: 2 });
});
