import type { QueryInterface } from 'sequelize';

interface Migration {
  readonly name: string;
  readonly up: (queries: QueryInterface) => Promise<unknown>;
}

const run = (queries: QueryInterface, statements: readonly string[]) =>
  statements.reduce<Promise<unknown>>(
    (before, sql) => before.then(() => queries.sequelize.query(sql)),
    Promise.resolve(),
  );

/** The schema's history; one that has shipped is never changed. */
export const MIGRATIONS: readonly Migration[] = [
  {
    name: '0001-first-tables',
    up: (queries) =>
      run(queries, [
        `CREATE TABLE projects (id TEXT PRIMARY KEY, name TEXT NOT NULL, document TEXT NOT NULL, history TEXT NOT NULL,
         revision INTEGER NOT NULL, deletedAt DATETIME, createdAt DATETIME NOT NULL, updatedAt DATETIME NOT NULL)`,
        `CREATE TABLE footage (id TEXT PRIMARY KEY, projectId TEXT NOT NULL REFERENCES projects(id), name TEXT NOT NULL,
         role TEXT NOT NULL, status TEXT NOT NULL, error TEXT, notes TEXT NOT NULL, file TEXT NOT NULL, bytes INTEGER NOT NULL,
         facts TEXT, hasPointer BOOLEAN NOT NULL, deletedAt DATETIME, createdAt DATETIME NOT NULL, updatedAt DATETIME NOT NULL)`,
        'CREATE INDEX footage_project ON footage(projectId)',
        `CREATE TABLE jobs (id TEXT PRIMARY KEY, type TEXT NOT NULL, projectId TEXT NOT NULL, subject TEXT NOT NULL, status TEXT NOT NULL,
         progress REAL NOT NULL, message TEXT NOT NULL, attempts INTEGER NOT NULL, owner TEXT, leaseUntil INTEGER NOT NULL,
         createdAt DATETIME NOT NULL, updatedAt DATETIME NOT NULL)`,
        'CREATE INDEX jobs_status ON jobs(status, createdAt)',
        'CREATE INDEX jobs_subject ON jobs(subject)',
        `CREATE TABLE exports (id TEXT PRIMARY KEY, projectId TEXT NOT NULL REFERENCES projects(id), name TEXT NOT NULL,
         settings TEXT NOT NULL, document TEXT NOT NULL, result TEXT, createdAt DATETIME NOT NULL, updatedAt DATETIME NOT NULL)`,
        'CREATE INDEX exports_project ON exports(projectId)',
      ]),
  },
  {
    name: '0002-takes-and-presets',
    up: (queries) =>
      run(queries, [
        `CREATE TABLE takes (id TEXT PRIMARY KEY, projectId TEXT NOT NULL REFERENCES projects(id), stepId TEXT, kind TEXT NOT NULL,
         number INTEGER NOT NULL, status TEXT NOT NULL, reason TEXT, seconds REAL NOT NULL, setup TEXT NOT NULL, footage TEXT NOT NULL,
         seenAt INTEGER NOT NULL, createdAt DATETIME NOT NULL, updatedAt DATETIME NOT NULL)`,
        'CREATE INDEX takes_project ON takes(projectId)',
        `CREATE TABLE presets (id TEXT PRIMARY KEY, kind TEXT NOT NULL, name TEXT NOT NULL, value TEXT NOT NULL,
         createdAt DATETIME NOT NULL, updatedAt DATETIME NOT NULL)`,
      ]),
  },
  {
    name: '0003-footage-tags-and-points',
    up: (queries) =>
      run(queries, [
        "ALTER TABLE footage ADD COLUMN tags TEXT NOT NULL DEFAULT '[]'",
        'ALTER TABLE footage ADD COLUMN inPoint INTEGER',
        'ALTER TABLE footage ADD COLUMN outPoint INTEGER',
        'ALTER TABLE footage ADD COLUMN origin TEXT',
      ]),
  },
];
