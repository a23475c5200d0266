import { database, type Database } from './db/connection';
import { DatabaseQueue } from './jobs/database-queue';
import type { JobQueue } from './jobs/job-queue';
import { dataDirectory } from './places';
import { DiskStore } from './stores/disk-store';
import type { FileStore } from './stores/file-store';

/** Who asks for something. */
export interface Actor {
  readonly id: string;
}

/** On a loopback address whoever asks is the person at the machine. */
const LOCAL_OWNER: Actor = { id: 'local' };

/** Where files are kept that belong to projects. */
export interface Stores {
  /** Recordings, what is made of them, and finished exports. */
  readonly files: FileStore;
  /** Takes: they grow piece by piece on the disk of the server that is recording them. */
  readonly takes: FileStore;
}

/** What a service works with, and for whom; it takes it before all else. */
export interface ServerContext {
  readonly actor: Actor;
  readonly db: Database;
  readonly stores: Stores;
  readonly queue: JobQueue;
}

/**
 * The context of this machine's owner. Opens the database, and brings it up to date, at first use.
 *
 * @throws Problem when the database can't be used
 */
export async function localContext(): Promise<ServerContext> {
  const db = await database();
  const disk = new DiskStore(dataDirectory());
  const stores = { files: disk, takes: disk };
  return { actor: LOCAL_OWNER, db, stores, queue: new DatabaseQueue(db) };
}
