/**
 * Where a recording's bytes wait until the server has them: appended to, and read again from any
 * place.
 */
export interface PartStore {
  readonly size: number;
  append(bytes: Uint8Array): void;
  read(from: number, most: number): Uint8Array<ArrayBuffer>;
  close(): void;
}

/** Keeps bytes in memory, where the browser offers no file system of its own. */
export class MemoryStore implements PartStore {
  private readonly pieces: { at: number; bytes: Uint8Array }[] = [];
  size = 0;

  append(bytes: Uint8Array): void {
    this.pieces.push({ at: this.size, bytes: bytes.slice() });
    this.size += bytes.length;
  }

  read(from: number, most: number): Uint8Array<ArrayBuffer> {
    const out = new Uint8Array(Math.max(0, Math.min(most, this.size - from)));
    // What lies before the reader has arrived at the server and need not be kept.
    while (this.pieces[0] && this.pieces[0].at + this.pieces[0].bytes.length <= from)
      this.pieces.shift();
    for (const { at, bytes } of this.pieces) {
      if (at >= from + out.length) break;
      const start = Math.max(0, from - at);
      const piece = bytes.subarray(start, start + out.length - Math.max(0, at - from));
      out.set(piece, Math.max(0, at - from));
    }
    return out;
  }

  close(): void {
    this.pieces.length = 0;
  }
}

/** Keeps bytes in a file of the origin's private file system, so that they outlive the tab. */
export class FileStore implements PartStore {
  size: number;

  constructor(private readonly handle: FileSystemSyncAccessHandle) {
    this.size = handle.getSize();
  }

  append(bytes: Uint8Array): void {
    const written = this.handle.write(bytes as Uint8Array<ArrayBuffer>, { at: this.size });
    if (written < bytes.length) {
      this.handle.truncate(this.size);
      throw new Error('quota');
    }
    this.size += bytes.length;
    this.handle.flush();
  }

  read(from: number, most: number): Uint8Array<ArrayBuffer> {
    const out = new Uint8Array(Math.max(0, Math.min(most, this.size - from)));
    const read = this.handle.read(out, { at: from });
    return out.subarray(0, read);
  }

  close(): void {
    this.handle.close();
  }
}

const ROOT = 'takes';
/** What is needed to give a take to the server that never heard of it. */
export const TAKE_NOTE = 'take.json';

async function takesFolder(): Promise<FileSystemDirectoryHandle | null> {
  try {
    const root = await navigator.storage.getDirectory();
    return await root.getDirectoryHandle(ROOT, { create: true });
  } catch {
    return null;
  }
}

/** The local folder of a take; null where the browser offers no file system. */
export async function localTake(
  takeId: string,
  create: boolean,
): Promise<FileSystemDirectoryHandle | null> {
  const folder = await takesFolder();
  return (await folder?.getDirectoryHandle(takeId, { create }).catch(() => null)) ?? null;
}

/** Ids of takes of which something lies here. */
export async function localTakes(): Promise<string[]> {
  const folder = await takesFolder();
  const names: string[] = [];
  if (folder)
    for await (const [name, handle] of folder.entries())
      if (handle.kind === 'directory') names.push(name);
  return names;
}

export async function removeLocalTake(takeId: string): Promise<void> {
  await (await takesFolder())?.removeEntry(takeId, { recursive: true }).catch(() => undefined);
}

/** Opens a part for writing; in memory when there is no folder, or the file is in use. */
export async function openPart(
  folder: FileSystemDirectoryHandle | null,
  name: string,
): Promise<PartStore> {
  if (!folder) return new MemoryStore();
  try {
    const file = await folder.getFileHandle(name, { create: true });
    return new FileStore(await file.createSyncAccessHandle());
  } catch {
    return new MemoryStore();
  }
}

/** Writes a small text into a take's folder. */
export async function writeNote(
  folder: FileSystemDirectoryHandle | null,
  text: string,
): Promise<void> {
  if (!folder) return;
  const file = await folder.getFileHandle(TAKE_NOTE, { create: true });
  const handle = await file.createSyncAccessHandle();
  handle.truncate(0);
  handle.write(new TextEncoder().encode(text), { at: 0 });
  handle.flush();
  handle.close();
}

export async function readNote(folder: FileSystemDirectoryHandle): Promise<string | null> {
  try {
    const file = await folder.getFileHandle(TAKE_NOTE);
    return await (await file.getFile()).text();
  } catch {
    return null;
  }
}
