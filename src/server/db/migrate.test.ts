import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as delay } from 'node:timers/promises';
import { scratchFolder } from '../testing/media';
import { migrate } from './migrate';
import { MIGRATIONS, type Migration } from './migrations';
import { RawDatabase } from './raw';

const folder = scratchFolder();
let count = 0;
const fresh = () => {
  const data = join(folder, String(++count));
  mkdirSync(data);
  return { data, path: join(data, 'vistum.sqlite') };
};
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const within = async <T>(path: string, work: (db: RawDatabase) => Promise<T>): Promise<T> => {
  const db = await RawDatabase.open(path, 1000);
  try {
    return await work(db);
  } finally {
    await db.close();
  }
};
const names = (path: string, sql: string) =>
  within(path, async (db) => (await db.all<{ name: string }>(sql)).map(({ name }) => name));
const done = (path: string) => names(path, 'SELECT name FROM SequelizeMeta ORDER BY name');
const ALL = MIGRATIONS.map(({ name }) => name);

test('a new database gets every migration, and an empty file becomes one', async () => {
  const { path } = fresh();
  await migrate(path);
  expect(await done(path)).toEqual(ALL);
  const other = fresh();
  writeFileSync(other.path, '');
  await migrate(other.path);
  expect(await done(other.path)).toEqual(ALL);
});

test('one that was broken off before transactions were used, at any statement, is finished', async () => {
  const statements = [
    'CREATE TABLE SequelizeMeta (name VARCHAR(255) NOT NULL PRIMARY KEY)',
    `CREATE TABLE projects (id TEXT PRIMARY KEY, name TEXT NOT NULL, document TEXT NOT NULL,
     history TEXT NOT NULL, revision INTEGER NOT NULL, deletedAt DATETIME,
     createdAt DATETIME NOT NULL, updatedAt DATETIME NOT NULL)`,
    `CREATE TABLE footage (id TEXT PRIMARY KEY, projectId TEXT NOT NULL REFERENCES projects(id),
     name TEXT NOT NULL, role TEXT NOT NULL, status TEXT NOT NULL, error TEXT, notes TEXT NOT NULL,
     file TEXT NOT NULL, bytes INTEGER NOT NULL, facts TEXT, hasPointer BOOLEAN NOT NULL,
     deletedAt DATETIME, createdAt DATETIME NOT NULL, updatedAt DATETIME NOT NULL)`,
    "ALTER TABLE footage ADD COLUMN tags TEXT NOT NULL DEFAULT '[]'",
    'ALTER TABLE footage ADD COLUMN inPoint INTEGER',
  ];
  for (let stop = 1; stop <= statements.length; stop++) {
    const { path } = fresh();
    await within(path, async (db) => {
      for (const sql of statements.slice(0, stop)) await db.run(sql);
    });
    await migrate(path);
    expect(await done(path)).toEqual(ALL);
    const columns = await names(path, "SELECT name FROM pragma_table_info('footage')");
    expect(columns.filter((name) => /^(tags|inPoint|outPoint|origin)$/.test(name))).toHaveLength(4);
  }
});

test('a migration that fails leaves the database as it was, and is done the next time', async () => {
  const { path } = fresh();
  await migrate(path);
  await within(path, (db) =>
    db.run(`INSERT INTO presets VALUES ('a', 'area', 'One', '{}', '2026-01-01', '2026-01-01')`),
  );
  let fails = true;
  const next: Migration = {
    name: '9999-two-steps',
    up: async (db) => {
      await db.run('CREATE TABLE half (id TEXT)');
      if (fails) throw new Error('broken off');
      await db.run("UPDATE presets SET name = 'Two'");
    },
  };
  await expect(migrate(path, [...MIGRATIONS, next])).rejects.toThrow(/broken off/);
  expect(await names(path, "SELECT name FROM sqlite_schema WHERE name = 'half'")).toEqual([]);
  fails = false;
  await migrate(path, [...MIGRATIONS, next]);
  expect(await names(path, 'SELECT name FROM presets')).toEqual(['Two']);
  // What there was before stands whole in the copy.
  const copy = join(path, '..', 'backups', 'before-9999-two-steps.sqlite');
  expect(await names(copy, 'SELECT name FROM presets')).toEqual(['One']);
});

test('several that start at once do each migration once', async () => {
  const { path } = fresh();
  let runs = 0;
  const next: Migration = {
    name: '9999-once',
    up: async (db) => {
      runs++;
      await db.run('CREATE TABLE once (id TEXT)');
    },
  };
  await Promise.all(Array.from({ length: 3 }, () => migrate(path, [...MIGRATIONS, next])));
  expect(runs).toBe(1);
});

test('one that is up to date is opened while another process writes for long', async () => {
  const { path } = fresh();
  await migrate(path);
  const until = await within(path, async (writer) => {
    await writer.run('BEGIN IMMEDIATE');
    const opened = migrate(path).then(() => 'opened');
    const late = delay(20_000, 'still waiting', { ref: false });
    const first = await Promise.race([opened, late]);
    await writer.run('COMMIT');
    return first;
  });
  expect(until).toBe('opened');
});

test('other files are refused with a sentence, and stay as they are', async () => {
  const text = fresh();
  writeFileSync(text.path, 'Dear diary, today I fired the kiln.');
  await expect(migrate(text.path)).rejects.toMatchObject({ code: 'database-foreign' });
  const other = fresh();
  await within(other.path, (db) => db.run('CREATE TABLE recipes (id TEXT)'));
  await expect(migrate(other.path)).rejects.toMatchObject({ code: 'database-foreign' });
  expect(await names(other.path, 'SELECT name FROM sqlite_schema')).toEqual(['recipes']);
  const newer = fresh();
  await migrate(newer.path);
  await within(newer.path, (db) => db.run("INSERT INTO SequelizeMeta VALUES ('0999-later')"));
  await expect(migrate(newer.path)).rejects.toMatchObject({ code: 'database-newer' });
});

test('a summary is made of each document that can be read, and of no other', async () => {
  const { path } = fresh();
  await migrate(path, MIGRATIONS.slice(0, 3));
  const canvas = { width: 1280, height: 720, frameRate: { num: 25, den: 1 } };
  const lanes = [{ clips: [{ start: 0, duration: 705_600_000 }] }];
  const documents = [JSON.stringify({ canvas, lanes }), '{"canvas":{"wid', 'null', '{"canvas":7}'];
  await within(path, async (db) => {
    for (const [i, document] of documents.entries())
      await db.run(
        `INSERT INTO projects VALUES (?, 'P', ?, '{}', 1, NULL, '2026-01-01', '2026-01-01')`,
        String(i),
        document,
      );
  });
  await migrate(path);
  const rows = await within(path, (db) =>
    db.all<{ width: number | null; duration: number | null }>(
      'SELECT width, duration FROM projects ORDER BY id',
    ),
  );
  expect(rows).toEqual([
    { width: 1280, duration: 705_600_000 },
    ...Array.from({ length: 3 }, () => ({ width: null, duration: null })),
  ]);
});

test('recordings that waited to be prepared without having been looked at are looked at', async () => {
  const { path } = fresh();
  await migrate(path, MIGRATIONS.slice(0, 7));
  await within(path, async (db) => {
    const stamp = { createdAt: '2026-01-01', updatedAt: '2026-01-01' };
    const insert = (table: string, row: Record<string, unknown>) => {
      const all = { ...row, ...stamp };
      const marks = Object.keys(all).map(() => '?');
      return db.run(
        `INSERT INTO ${table} (${Object.keys(all).join()}) VALUES (${marks.join()})`,
        ...(Object.values(all) as string[]),
      );
    };
    await insert('projects', { id: 'p', name: 'P', document: '{}', revision: 1 });
    for (const [id, facts] of [
      ['new', null],
      ['known', '{}'],
    ] as const) {
      const file = { id, projectId: 'p', name: id, role: 'screen', status: 'waiting', notes: '[]' };
      await insert('footage', { ...file, file: 'a.mp4', bytes: 1, facts, hasPointer: 0 });
      const job = { id: `job of ${id}`, type: 'ingest', projectId: 'p', subject: id };
      const state = { status: 'queued', progress: 0, message: '', attempts: 0, leaseUntil: 0 };
      await insert('jobs', { ...job, ...state });
    }
  });
  await migrate(path);
  expect(await names(path, "SELECT id || ' ' || type AS name FROM jobs ORDER BY id")).toEqual([
    'job of known ingest',
    'job of new probe',
  ]);
});

test('undo histories move into rows; one that can’t be read stays one that can’t', async () => {
  const { path } = fresh();
  await migrate(path, MIGRATIONS.slice(0, 6));
  const step = (label: string) => ({ label, forward: {}, inverse: {} });
  const history = { done: [step('a'), step('b')], undone: [step('d'), step('c')] };
  const texts = [JSON.stringify(history), '{"done":[', '{"done":[],"undone":[]}'];
  await within(path, async (db) => {
    for (const [i, text] of texts.entries())
      await db.run(
        `INSERT INTO projects (id, name, document, history, revision, createdAt, updatedAt)
         VALUES (?, 'P', '{}', ?, 1, '2026-01-01', '2026-01-01')`,
        String(i),
        text,
      );
  });
  await migrate(path);
  const rows = await within(path, (db) =>
    db.all<{ projectId: string; done: number; step: string }>(
      `SELECT projectId, done, step FROM projects JOIN steps ON projectId = id
       ORDER BY projectId, position`,
    ),
  );
  expect(rows.map(({ projectId, done, step }) => `${projectId} ${done} ${step}`)).toEqual([
    ...['a', 'b', 'c', 'd'].map((label) => `0 2 ${JSON.stringify(step(label))}`),
    '1 1 {"done":[',
  ]);
  expect(await names(path, "SELECT name FROM pragma_table_info('projects')")).not.toContain(
    'history',
  );
});

test('killed at any instant of its first start, it starts the next time', async () => {
  for (const ms of [60, 90, 140]) {
    const { data } = fresh();
    const env = { ...process.env, VISTUM_DATA: data, VISTUM_ROOT: process.cwd() };
    const args = ['dist/vistum.mjs', 'new', '--name', 'First', '--json'];
    const child = spawn(process.execPath, args, { env, stdio: 'ignore' });
    // From the instant that its file is there.
    for (const end = Date.now() + 10_000; !readdirSync(data).length && Date.now() < end;)
      await new Promise((resolve) => setTimeout(resolve, 2));
    await new Promise((resolve) => setTimeout(resolve, ms - 60));
    child.kill('SIGKILL');
    await new Promise((resolve) => child.on('close', resolve));
    const again = spawnSync(process.execPath, args, { env, encoding: 'utf8' });
    expect(again.stderr).toBe('');
    expect(again.status).toBe(0);
  }
});
