/** What is known of a stored file. */
export interface StoredFile {
  readonly bytes: number;
  readonly modified: Date;
}

/**
 * Whole files by names such as `footage/abc/proxy.mp4`: recordings, what is made of them, finished
 * exports. A file appears whole, is replaced as a whole and is never written to in place, so that a
 * store may lie on another machine; what is being made lies in a folder of work until then.
 */
export interface FileStore {
  /**
   * Takes a local file over under a name, in place of what had it.
   *
   * @param from the file is no longer there afterwards
   */
  put(name: string, from: string): Promise<void>;

  /**
   * A path on this machine to read a file from, which must not be written to. It need not exist:
   * whoever opens it finds that out.
   */
  path(name: string): Promise<string>;

  /** The bytes from `start` up to, but without, `end`; read as they are asked for. */
  stream(name: string, start: number, end: number): ReadableStream<Uint8Array>;

  /** What is known of a file; null when there is none. */
  find(name: string): Promise<StoredFile | null>;

  /** Gives a file, or all files below a name, a second name without copying bytes. */
  share(from: string, to: string): Promise<void>;

  /** Removes a file, or all below a name; what is not there is removed already. */
  remove(name: string): Promise<void>;

  /** What lies right below a name, with the time it was changed last. */
  list(name: string): Promise<readonly { readonly name: string; readonly modified: Date }[]>;

  /** Bytes by file, of all below a name; a file that has two names is the same one. */
  sizes(name: string): Promise<ReadonlyMap<string, number>>;
}
