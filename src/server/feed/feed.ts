import { QueryTypes } from 'sequelize';
import type { ServerContext } from '../context';
import { databasePath } from '../db/connection';
import { RawDatabase } from '../db/raw';
import { projectState } from './project-state';

/*
 * One look at the database for all who listen: a single number tells whether anything was written
 * at all, one statement which projects it concerns, and only those are read. A quiet server costs
 * that number.
 */

const EVERY_MS = 250;
/** Files can go without a word in the database; they are looked for this often. */
const FILES_MS = 10_000;
const BUSY_MS = 4000;

type Listener = (state: string | null) => void;

interface Topic {
  readonly listeners: Set<Listener>;
  /** What tells whether its rows changed. */
  stamp: string;
  /** What was told last. */
  told: string;
  readAt: number;
}

/** Tells of projects as they change. */
export class ChangeFeed {
  private readonly topics = new Map<string, Topic>();
  private reader: RawDatabase | null = null;
  private version = -1;
  private timer: ReturnType<typeof setTimeout> | null = null;
  private looking: Promise<void> = Promise.resolve();

  constructor(private readonly context: ServerContext) {}

  /** How many listen. */
  get count(): number {
    let sum = 0;
    for (const { listeners } of this.topics.values()) sum += listeners.size;
    return sum;
  }

  /**
   * Listens to a project.
   *
   * @param listener gets its state as JSON text at once, and again whenever it changed; null when
   * it is gone
   * @returns ends it
   */
  listen(projectId: string, listener: Listener): () => void {
    let topic = this.topics.get(projectId);
    if (!topic) {
      topic = { listeners: new Set(), stamp: '', told: '', readAt: 0 };
      this.topics.set(projectId, topic);
      // Read once, for all who come before it is there.
      void this.read(projectId);
    }
    topic.listeners.add(listener);
    if (topic.told) listener(topic.told);
    this.timer ??= setTimeout(() => void this.look(), EVERY_MS);
    return () => {
      topic.listeners.delete(listener);
      if (!topic.listeners.size && this.topics.get(projectId) === topic)
        this.topics.delete(projectId);
    };
  }

  /** Ends it; listeners hear no more. */
  async close(): Promise<void> {
    this.topics.clear();
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    await this.looking.catch(() => undefined);
    await this.reader?.close();
    this.reader = null;
  }

  private async look(): Promise<void> {
    this.looking = this.readChanged().catch((error: unknown) => console.error(error));
    await this.looking;
    this.timer = this.topics.size ? setTimeout(() => void this.look(), EVERY_MS) : null;
  }

  private async readChanged(): Promise<void> {
    if (!this.topics.size) return;
    // The number counts what other connections wrote, so that one of its own, which writes nothing,
    // sees all.
    this.reader ??= await RawDatabase.open(databasePath(), BUSY_MS);
    const [row] = await this.reader.all<{ data_version: number }>('PRAGMA data_version');
    const changed = row!.data_version !== this.version;
    this.version = row!.data_version;
    const stamps = changed ? await stampsOf(this.context, [...this.topics.keys()]) : null;
    const now = Date.now();
    for (const [id, topic] of this.topics) {
      const stamp = stamps ? (stamps.get(id) ?? 'gone') : topic.stamp;
      if (stamp !== topic.stamp || now - topic.readAt > FILES_MS) {
        topic.stamp = stamp;
        await this.read(id);
      }
    }
  }

  private async read(id: string): Promise<void> {
    const topic = this.topics.get(id);
    if (!topic) return;
    topic.readAt = Date.now();
    const state = await projectState(this.context, id).then(JSON.stringify, () => null);
    if (state === null) {
      this.topics.delete(id);
      for (const listener of topic.listeners) listener(null);
    } else if (state !== topic.told) {
      topic.told = state;
      for (const listener of topic.listeners) listener(state);
    }
  }
}

/** For each project a text that changes with any of its rows. */
async function stampsOf(
  context: ServerContext,
  ids: readonly string[],
): Promise<Map<string, string>> {
  const { sequelize } = context.db;
  const of = (table: string) =>
    `(SELECT COUNT(*) || '/' || COALESCE(MAX(updatedAt), '') FROM ${table} t WHERE t.projectId = p.id)`;
  const rows = await sequelize.query<{ id: string; stamp: string }>(
    `SELECT p.id, p.revision || ' ' || p.updatedAt || ' ' || ${of('footage')} || ' ' ||
       ${of('jobs')} || ' ' || ${of('exports')} || ' ' || ${of('takes')} || ' ' || ${of('analyses')} AS stamp
     FROM projects p WHERE p.id IN (:ids) AND p.deletedAt IS NULL`,
    { replacements: { ids }, type: QueryTypes.SELECT },
  );
  return new Map(rows.map(({ id, stamp }) => [id, stamp]));
}

const shared = globalThis as { vistumFeed?: ChangeFeed };

/** The one feed of this process. */
export const feed = (context: ServerContext): ChangeFeed =>
  (shared.vistumFeed ??= new ChangeFeed(context));
