import { join } from 'node:path';
import { Sequelize, Transaction } from 'sequelize';
import { dataFolder } from '../places';
import { migrate } from './migrate';
import { defineModels } from './models';

export type Database = ReturnType<typeof defineModels> & {
  readonly sequelize: Sequelize;
  /**
   * Does several writes as one: all of them or none, one after the other within this process. Each
   * statement in `work` must be given the transaction. `work` may be run again when the database
   * was busy, before anything of it counted.
   */
  readonly transact: <T>(work: (transaction: Transaction) => Promise<T>) => Promise<T>;
  /**
   * Reads of one state of the database, whatever is written meanwhile; waits for no writer. Each
   * statement in `work` must be given the transaction.
   */
  readonly snapshot: <T>(work: (transaction: Transaction) => Promise<T>) => Promise<T>;
  readonly isOpen: () => boolean;
  readonly close: () => Promise<void>;
};

/** Where the database lies. */
export const databasePath = (): string => join(dataFolder(), 'vistum.sqlite');

async function open(): Promise<Database> {
  const storage = databasePath();
  await migrate(storage);
  const sequelize = new Sequelize({ dialect: 'sqlite', storage, logging: false });
  // A statement that waits for a lock waits in a thread, of which there are few: others of the
  // connection queue up without one, so that whoever has the lock always gets on.
  const connection = (await sequelize.connectionManager.getConnection({
    type: 'write',
  })) as { serialize(): void };
  connection.serialize();
  // A writer waits for another one for a while.
  await sequelize.query('PRAGMA busy_timeout = 8000');
  await sequelize.query('PRAGMA foreign_keys = ON');
  // A commit is on the disk before it is told, also through a loss of power.
  await sequelize.query('PRAGMA synchronous = FULL');
  let isOpen = true;
  return {
    ...defineModels(sequelize),
    sequelize,
    transact: (work) => inTurn(sequelize, work),
    snapshot: (work) => tryTransaction(sequelize, Transaction.TYPES.DEFERRED, work),
    isOpen: () => isOpen,
    close: () => {
      isOpen = false;
      return sequelize.close();
    },
  };
}

const shared = globalThis as {
  vistumDatabase?: Promise<Database>;
  /** Settles when the transaction that was asked for last has ended. */
  vistumTransaction?: Promise<void>;
};

/** The one connection of this process, opened and migrated at first use. */
export function database(): Promise<Database> {
  shared.vistumDatabase ??= open().catch((error: unknown) => {
    delete shared.vistumDatabase;
    throw error;
  });
  return shared.vistumDatabase;
}

const TRIES = 8;

async function inTurn<T>(
  sequelize: Sequelize,
  work: (transaction: Transaction) => Promise<T>,
): Promise<T> {
  const before = shared.vistumTransaction ?? Promise.resolve();
  let end = () => {};
  shared.vistumTransaction = new Promise((resolve) => (end = resolve));
  await before;
  try {
    return await tryTransaction(sequelize, Transaction.TYPES.IMMEDIATE, work);
  } finally {
    end();
  }
}

/** Begins again while another process has the database. */
async function tryTransaction<T>(
  sequelize: Sequelize,
  type: Transaction.TYPES,
  work: (transaction: Transaction) => Promise<T>,
): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await sequelize.transaction({ type }, work);
    } catch (error) {
      const { code } = (error as { parent?: { code?: string } }).parent ?? {};
      if (code !== 'SQLITE_BUSY' || tries >= TRIES) throw error;
    }
  }
}

/** Closes the connection, at the end of a command or a test. */
export async function closeDatabase(): Promise<void> {
  const open = shared.vistumDatabase;
  delete shared.vistumDatabase;
  if (open) await (await open).close();
}
