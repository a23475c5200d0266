import { join } from 'node:path';
import { Sequelize } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { dataFolder } from '../places';
import { MIGRATIONS } from './migrations';
import { defineModels } from './models';

export type Database = ReturnType<typeof defineModels> & { readonly sequelize: Sequelize };

async function open(): Promise<Database> {
  const sequelize = new Sequelize({
    dialect: 'sqlite',
    storage: join(dataFolder(), 'vistum.sqlite'),
    logging: false,
  });
  // WAL lets the web server read while the worker writes; a writer waits for another one for a while.
  await sequelize.query('PRAGMA journal_mode = WAL');
  await sequelize.query('PRAGMA busy_timeout = 8000');
  await sequelize.query('PRAGMA foreign_keys = ON');
  const umzug = new Umzug({
    migrations: MIGRATIONS.map(({ name, up }) => ({
      name,
      up: () => up(sequelize.getQueryInterface()),
    })),
    storage: new SequelizeStorage({ sequelize }),
    logger: undefined,
  });
  await umzug.up();
  return { ...defineModels(sequelize), sequelize };
}

const shared = globalThis as { vistumDatabase?: Promise<Database> };

/** The one connection of this process, opened and migrated at first use. */
export function database(): Promise<Database> {
  shared.vistumDatabase ??= open().catch((error: unknown) => {
    delete shared.vistumDatabase;
    throw error;
  });
  return shared.vistumDatabase;
}

/** Closes the connection, at the end of a command or a test. */
export async function closeDatabase(): Promise<void> {
  const open = shared.vistumDatabase;
  delete shared.vistumDatabase;
  if (open) await (await open).sequelize.close();
}
