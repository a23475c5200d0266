import { stepsOfText } from '../documents/stored-steps';
import { summaryOfText } from '../documents/summary';
import type { RawDatabase } from './raw';

export interface Migration {
  readonly name: string;
  /**
   * Runs within a transaction. Each statement may find its work done: databases of before
   * transactions were used may have been left in the middle of one.
   */
  readonly up: (db: RawDatabase) => Promise<void>;
}

async function run(db: RawDatabase, statements: readonly string[]): Promise<void> {
  for (const sql of statements) await db.run(sql);
}

/** Adds a column unless the table has it. */
async function addColumn(db: RawDatabase, table: string, column: string, definition: string) {
  const there = await db.all<{ name: string }>(`SELECT name FROM pragma_table_info('${table}')`);
  if (!there.some(({ name }) => name === column))
    await db.run(`ALTER TABLE ${table} ADD COLUMN ${column} ${definition}`);
}

/** Fills the summary of each project from its document; one that can't be read keeps none. */
async function summarise(db: RawDatabase): Promise<void> {
  const ids = await db.all<{ id: string }>('SELECT id FROM projects');
  for (const { id } of ids) {
    // One at a time: a document can be large.
    const [row] = await db.all<{ document: string }>(
      'SELECT document FROM projects WHERE id = ?',
      id,
    );
    const found = summaryOfText(row?.document ?? '');
    if (found)
      await db.run(
        'UPDATE projects SET width = ?, height = ?, rateNum = ?, rateDen = ?, duration = ? WHERE id = ?',
        found.width,
        found.height,
        found.rateNum,
        found.rateDen,
        found.duration,
        id,
      );
  }
}

/**
 * Moves undo histories into rows of their own. One that can't be read becomes a step that can't be
 * read, so that whoever opens the project hears of it.
 */
async function moveHistories(db: RawDatabase): Promise<void> {
  const columns = await db.all<{ name: string }>("SELECT name FROM pragma_table_info('projects')");
  if (!columns.some(({ name }) => name === 'history')) return;
  for (const { id } of await db.all<{ id: string }>('SELECT id FROM projects')) {
    // One at a time: a history can be large.
    const [row] = await db.all<{ history: string }>(
      'SELECT history FROM projects WHERE id = ?',
      id,
    );
    const { steps, done } = stepsOfText(row?.history ?? '');
    for (const [position, step] of steps.entries())
      await db.run('INSERT OR REPLACE INTO steps VALUES (?, ?, ?)', id, position, step);
    await db.run('UPDATE projects SET done = ? WHERE id = ?', done, id);
  }
  await db.run('ALTER TABLE projects DROP COLUMN history');
}

/** The schema's history; what one that has shipped makes is never changed. */
export const MIGRATIONS: readonly Migration[] = [
  {
    name: '0001-first-tables',
    up: (db) =>
      run(db, [
        `CREATE TABLE IF NOT EXISTS projects (id TEXT PRIMARY KEY, name TEXT NOT NULL,
         document TEXT NOT NULL, history TEXT NOT NULL, revision INTEGER NOT NULL,
         deletedAt DATETIME, createdAt DATETIME NOT NULL, updatedAt DATETIME NOT NULL)`,
        `CREATE TABLE IF NOT EXISTS footage (id TEXT PRIMARY KEY,
         projectId TEXT NOT NULL REFERENCES projects(id), name TEXT NOT NULL, role TEXT NOT NULL,
         status TEXT NOT NULL, error TEXT, notes TEXT NOT NULL, file TEXT NOT NULL,
         bytes INTEGER NOT NULL, facts TEXT, hasPointer BOOLEAN NOT NULL, deletedAt DATETIME,
         createdAt DATETIME NOT NULL, updatedAt DATETIME NOT NULL)`,
        'CREATE INDEX IF NOT EXISTS footage_project ON footage(projectId)',
        `CREATE TABLE IF NOT EXISTS jobs (id TEXT PRIMARY KEY, type TEXT NOT NULL,
         projectId TEXT NOT NULL, subject TEXT NOT NULL, status TEXT NOT NULL,
         progress REAL NOT NULL, message TEXT NOT NULL, attempts INTEGER NOT NULL, owner TEXT,
         leaseUntil INTEGER NOT NULL, createdAt DATETIME NOT NULL, updatedAt DATETIME NOT NULL)`,
        'CREATE INDEX IF NOT EXISTS jobs_status ON jobs(status, createdAt)',
        'CREATE INDEX IF NOT EXISTS jobs_subject ON jobs(subject)',
        `CREATE TABLE IF NOT EXISTS exports (id TEXT PRIMARY KEY,
         projectId TEXT NOT NULL REFERENCES projects(id), name TEXT NOT NULL,
         settings TEXT NOT NULL, document TEXT NOT NULL, result TEXT,
         createdAt DATETIME NOT NULL, updatedAt DATETIME NOT NULL)`,
        'CREATE INDEX IF NOT EXISTS exports_project ON exports(projectId)',
      ]),
  },
  {
    name: '0002-takes-and-presets',
    up: (db) =>
      run(db, [
        `CREATE TABLE IF NOT EXISTS takes (id TEXT PRIMARY KEY, projectId TEXT NOT NULL,
         stepId TEXT, kind TEXT NOT NULL, number INTEGER NOT NULL, status TEXT NOT NULL,
         reason TEXT, seconds REAL NOT NULL, setup TEXT NOT NULL, footage TEXT NOT NULL,
         seenAt INTEGER NOT NULL, createdAt DATETIME NOT NULL, updatedAt DATETIME NOT NULL)`,
        'CREATE INDEX IF NOT EXISTS takes_project ON takes(projectId)',
        `CREATE TABLE IF NOT EXISTS presets (id TEXT PRIMARY KEY, kind TEXT NOT NULL,
         name TEXT NOT NULL, value TEXT NOT NULL, createdAt DATETIME NOT NULL,
         updatedAt DATETIME NOT NULL)`,
      ]),
  },
  {
    name: '0003-footage-tags-and-points',
    up: async (db) => {
      await addColumn(db, 'footage', 'tags', "TEXT NOT NULL DEFAULT '[]'");
      await addColumn(db, 'footage', 'inPoint', 'INTEGER');
      await addColumn(db, 'footage', 'outPoint', 'INTEGER');
      await addColumn(db, 'footage', 'origin', 'TEXT');
    },
  },
  {
    name: '0004-summaries-and-revisions',
    up: async (db) => {
      for (const column of ['width', 'height', 'rateNum', 'rateDen', 'duration'])
        await addColumn(db, 'projects', column, 'INTEGER');
      await summarise(db);
      await run(db, [
        `CREATE TABLE IF NOT EXISTS revisions (projectId TEXT NOT NULL, revision INTEGER NOT NULL,
         document BLOB NOT NULL, savedAt INTEGER NOT NULL, PRIMARY KEY (projectId, revision))`,
        'CREATE INDEX IF NOT EXISTS jobs_project ON jobs(projectId, status)',
      ]);
    },
  },
  {
    name: '0005-changes',
    up: async (db) => {
      await addColumn(db, 'projects', 'checkpoint', 'INTEGER NOT NULL DEFAULT 0');
      await run(db, [
        'UPDATE projects SET checkpoint = revision WHERE checkpoint = 0',
        `CREATE TABLE IF NOT EXISTS changes (projectId TEXT NOT NULL, revision INTEGER NOT NULL,
         key TEXT NOT NULL, delta TEXT NOT NULL, savedAt INTEGER NOT NULL,
         PRIMARY KEY (projectId, revision))`,
      ]);
    },
  },
  {
    name: '0006-analyses',
    up: (db) =>
      run(db, [
        `CREATE TABLE IF NOT EXISTS analyses (id TEXT PRIMARY KEY, footageId TEXT NOT NULL,
         projectId TEXT NOT NULL, kind TEXT NOT NULL, version INTEGER NOT NULL,
         status TEXT NOT NULL, error TEXT, fingerprint TEXT, summary TEXT NOT NULL,
         provenance TEXT, confidence REAL, createdAt DATETIME NOT NULL,
         updatedAt DATETIME NOT NULL)`,
        'CREATE INDEX IF NOT EXISTS analyses_footage ON analyses(footageId, kind)',
        'CREATE INDEX IF NOT EXISTS analyses_project ON analyses(projectId)',
        'CREATE INDEX IF NOT EXISTS analyses_content ON analyses(fingerprint)',
        // Pointer tracks that are there, and those that wait to be read.
        `INSERT OR IGNORE INTO analyses SELECT id || '-pointer', id, projectId, 'pointer', 1,
         'ready', NULL, NULL, '{}', 'recorded', 1, createdAt, updatedAt FROM footage
         WHERE hasPointer`,
        `INSERT OR IGNORE INTO analyses SELECT id, subject, projectId, 'pointer', 1, 'waiting',
         NULL, NULL, '{}', NULL, NULL, createdAt, updatedAt FROM jobs
         WHERE type = 'track' AND status IN ('queued', 'running')`,
        `UPDATE jobs SET subject = id WHERE type = 'track' AND status IN ('queued', 'running')`,
        `UPDATE jobs SET type = 'analysis' WHERE type = 'track'`,
      ]),
  },
  {
    name: '0007-steps',
    up: async (db) => {
      await db.run(
        `CREATE TABLE IF NOT EXISTS steps (projectId TEXT NOT NULL, position INTEGER NOT NULL,
         step TEXT NOT NULL, PRIMARY KEY (projectId, position))`,
      );
      await addColumn(db, 'projects', 'done', 'INTEGER NOT NULL DEFAULT 0');
      await moveHistories(db);
    },
  },
  {
    // What was queued to be prepared before looking was a job of its own is looked at first.
    name: '0008-probe',
    up: (db) =>
      run(db, [
        `UPDATE jobs SET type = 'probe' WHERE type = 'ingest' AND status IN ('queued', 'running')
         AND subject IN (SELECT id FROM footage WHERE facts IS NULL)`,
      ]),
  },
  {
    name: '0009-parameters',
    up: (db) => addColumn(db, 'analyses', 'parameters', "TEXT NOT NULL DEFAULT ''"),
  },
  {
    name: '0010-proofs',
    up: (db) => addColumn(db, 'exports', 'proof', 'TEXT'),
  },
];
