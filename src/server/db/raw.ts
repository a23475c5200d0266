import sqlite3 from 'sqlite3';

type Value = string | number | null | Buffer;

/**
 * One connection to an SQLite file with promises, for what has to hold a connection of its own:
 * migrations, copies, and looking whether anything was written.
 */
export class RawDatabase {
  private constructor(private readonly handle: sqlite3.Database) {}

  /**
   * Opens a file; one that is not there is made.
   *
   * @param busyMs how long a statement waits for another connection's lock, in milliseconds
   */
  static async open(path: string, busyMs: number): Promise<RawDatabase> {
    const handle = await new Promise<sqlite3.Database>((resolve, reject) => {
      const opened: sqlite3.Database = new sqlite3.Database(path, (error) =>
        error ? reject(error) : resolve(opened),
      );
    });
    handle.configure('busyTimeout', busyMs);
    return new RawDatabase(handle);
  }

  /** All rows that a statement answers. */
  all<T>(sql: string, ...values: Value[]): Promise<T[]> {
    return new Promise((resolve, reject) =>
      this.handle.all<T>(sql, values, (error, rows) => (error ? reject(error) : resolve(rows))),
    );
  }

  /** Runs a statement; answers how many rows it changed. */
  run(sql: string, ...values: Value[]): Promise<number> {
    return new Promise((resolve, reject) =>
      this.handle.run(sql, values, function (error) {
        if (error) reject(error);
        else resolve(this.changes);
      }),
    );
  }

  close(): Promise<void> {
    return new Promise((resolve, reject) =>
      this.handle.close((error) => (error ? reject(error) : resolve())),
    );
  }
}
