import { mkdir, open, rename, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { UmzugStorage } from 'umzug';
import { problem } from '../problem';
import { MIGRATIONS, type Migration } from './migrations';
import { RawDatabase } from './raw';

/** How long a process waits for another one that is bringing the database up to date. */
const BUSY_MS = 60_000;
const HEAD = 'SQLite format 3\0';

/** The names of migrations that were done, in the table that tells them. */
function storageOf(db: RawDatabase): UmzugStorage {
  return {
    logMigration: async ({ name }) => {
      await db.run('INSERT INTO SequelizeMeta (name) VALUES (?)', name);
    },
    unlogMigration: async ({ name }) => {
      await db.run('DELETE FROM SequelizeMeta WHERE name = ?', name);
    },
    executed: async () =>
      (await db.all<{ name: string }>('SELECT name FROM SequelizeMeta ORDER BY name')).map(
        ({ name }) => name,
      ),
  };
}

const tablesOf = async (db: RawDatabase): Promise<string[]> =>
  (await db.all<{ name: string }>("SELECT name FROM sqlite_schema WHERE type = 'table'")).map(
    ({ name }) => name,
  );

/**
 * Refuses a file that is something else than a database; one that is empty or not there will become
 * one.
 */
async function checkHead(path: string): Promise<void> {
  const handle = await open(path, 'r').catch((error: { code?: string }) => {
    if (error.code === 'ENOENT') return null;
    throw error;
  });
  if (!handle) return;
  try {
    const { bytesRead, buffer } = await handle.read(Buffer.alloc(HEAD.length), 0, HEAD.length, 0);
    if (bytesRead && buffer.toString('latin1') !== HEAD) throw problem('database-foreign');
  } finally {
    await handle.close();
  }
}

/** Refuses the database of another program, and one of a later version of this one. */
async function checkOurs(db: RawDatabase, migrations: readonly Migration[]): Promise<void> {
  const tables = await tablesOf(db);
  if (!tables.length) return;
  if (!tables.includes('SequelizeMeta') && !tables.includes('projects'))
    throw problem('database-foreign');
  if (!tables.includes('SequelizeMeta')) return;
  const known = new Set(migrations.map(({ name }) => name));
  const done = await storageOf(db).executed({ context: undefined });
  if (done.some((name) => !known.has(name))) throw problem('database-newer');
}

/**
 * Writes a whole copy of the database as it was before a migration; one that was begun before is
 * replaced.
 */
async function copyBefore(path: string, name: string): Promise<void> {
  const folder = join(dirname(path), 'backups');
  await mkdir(folder, { recursive: true });
  const target = join(folder, `before-${name}.sqlite`);
  const part = `${target}.part`;
  await rm(part, { force: true });
  const reader = await RawDatabase.open(path, BUSY_MS);
  try {
    await reader.run('VACUUM INTO ?', part);
  } finally {
    await reader.close();
  }
  await rename(part, target);
}

/**
 * Brings a database up to date. Each migration is one transaction together with the note that it
 * was done, so that an end at any instant leaves it done or not begun; whoever holds the lock for
 * writing is the only one at it, in whatever process, and others find it done. Before each, what
 * there is gets copied whole.
 *
 * @param path of the file; one that is not there or empty becomes a database
 * @throws Problem for a file that is no database, one of another program, or one of a later version
 */
export async function migrate(
  path: string,
  migrations: readonly Migration[] = MIGRATIONS,
): Promise<void> {
  await checkHead(path);
  const db = await RawDatabase.open(path, BUSY_MS);
  try {
    await checkOurs(db, migrations);
    await readAheadLog(db);
    while (!(await isUpToDate(db, migrations)) && (await migrateOne(db, path, migrations)));
  } finally {
    await db.close();
  }
}

/**
 * Lets the web server read while the worker writes. Changing over needs the file alone for an
 * instant, and does not wait.
 */
async function readAheadLog(db: RawDatabase): Promise<void> {
  const end = Date.now() + BUSY_MS;
  for (;;) {
    try {
      await db.run('PRAGMA journal_mode = WAL');
      return;
    } catch (error) {
      if ((error as { code?: string }).code !== 'SQLITE_BUSY' || Date.now() > end) throw error;
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  }
}

/** Whether there is anything in the database that a person made. */
async function isFilled(db: RawDatabase): Promise<boolean> {
  const tables = await tablesOf(db);
  for (const table of ['projects', 'presets'])
    if (tables.includes(table) && (await db.all(`SELECT 1 FROM ${table} LIMIT 1`)).length)
      return true;
  return false;
}

/** Told without the lock for writing, which another process may hold for long. */
async function isUpToDate(db: RawDatabase, migrations: readonly Migration[]): Promise<boolean> {
  if (!(await tablesOf(db)).includes('SequelizeMeta')) return false;
  const done = new Set(await storageOf(db).executed({ context: undefined }));
  return migrations.every(({ name }) => done.has(name));
}

/** Does the next migration that is due; false when there is none. */
async function migrateOne(
  db: RawDatabase,
  path: string,
  migrations: readonly Migration[],
): Promise<boolean> {
  // It loads slowly, and most processes find nothing to do.
  const { Umzug } = await import('umzug');
  await db.run('BEGIN IMMEDIATE');
  try {
    const filled = await isFilled(db);
    await db.run(
      'CREATE TABLE IF NOT EXISTS SequelizeMeta (name VARCHAR(255) NOT NULL PRIMARY KEY)',
    );
    const umzug = new Umzug({
      migrations: migrations.map(({ name, up }) => ({ name, up: () => up(db) })),
      storage: storageOf(db),
      logger: undefined,
    });
    const [next] = await umzug.pending();
    if (next) {
      if (filled) await copyBefore(path, next.name);
      await umzug.up({ step: 1 });
    }
    await db.run('COMMIT');
    return !!next;
  } catch (error) {
    await db.run('ROLLBACK').catch(() => undefined);
    throw error;
  }
}
