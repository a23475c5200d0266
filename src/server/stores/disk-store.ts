import { copyFile, link, mkdir, open, readdir, rename, rm, stat } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { writeWhole } from '../media/whole-file';
import type { FileStore, StoredFile } from './file-store';

const CHUNK = 1 << 18;
const NAME = /^[\w-][\w.-]*(\/[\w-][\w.-]*)*$/;

const codeOf = (error: unknown): string | undefined => (error as NodeJS.ErrnoException).code;

/** Files in a folder of this machine. */
export class DiskStore implements FileStore {
  constructor(private readonly root: string) {}

  async put(name: string, from: string): Promise<void> {
    const to = this.at(name);
    await mkdir(dirname(to), { recursive: true });
    try {
      await rename(from, to);
    } catch (error) {
      // What was made on another disk is copied, and appears when all of it is here.
      if (codeOf(error) !== 'EXDEV') throw error;
      await writeWhole(to, (part) => copyFile(from, part));
      await rm(from);
    }
  }

  path(name: string): Promise<string> {
    return Promise.resolve(this.at(name));
  }

  stream(name: string, start: number, end: number): ReadableStream<Uint8Array> {
    const path = this.at(name);
    let handle: Awaited<ReturnType<typeof open>> | null = null;
    let at = start;
    let cancelled = false;
    const close = async () => {
      const opened = handle;
      handle = null;
      await opened?.close();
    };
    return new ReadableStream(
      {
        // Reads on demand, so that whoever goes away simply stops it.
        async pull(controller) {
          try {
            handle ??= await open(path);
            // Who asked may have gone while it was opened, or is read.
            if (cancelled) return await close();
            const size = Math.min(CHUNK, end - at);
            const { bytesRead, buffer } = await handle.read(new Uint8Array(size), 0, size, at);
            if (cancelled) return;
            at += bytesRead;
            if (bytesRead) controller.enqueue(buffer.subarray(0, bytesRead));
            if (bytesRead && at < end) return;
            await close();
            controller.close();
          } catch (error) {
            await close();
            throw error;
          }
        },
        async cancel() {
          cancelled = true;
          await close();
        },
      },
      { highWaterMark: 0 },
    );
  }

  async find(name: string): Promise<StoredFile | null> {
    const found = await stat(this.at(name)).catch(() => null);
    return found?.isFile() ? { bytes: found.size, modified: found.mtime } : null;
  }

  async share(from: string, to: string): Promise<void> {
    const [source, target] = [this.at(from), this.at(to)];
    if (!(await stat(source)).isDirectory()) {
      await mkdir(dirname(target), { recursive: true });
      return linkOrCopy(source, target);
    }
    await mkdir(target, { recursive: true });
    for (const entry of await readdir(source, { withFileTypes: true }))
      // What is not whole yet is nobody's.
      if (entry.isFile() && !entry.name.endsWith('.part'))
        await linkOrCopy(join(source, entry.name), join(target, entry.name));
  }

  async remove(name: string): Promise<void> {
    await rm(this.at(name), { recursive: true, force: true });
  }

  async list(name: string): Promise<readonly { name: string; modified: Date }[]> {
    const folder = this.at(name);
    const names = await readdir(folder).catch(() => []);
    const all = names.map(async (one) => {
      const found = await stat(join(folder, one)).catch(() => null);
      return found ? [{ name: one, modified: found.mtime }] : [];
    });
    return (await Promise.all(all)).flat();
  }

  async sizes(name: string): Promise<ReadonlyMap<string, number>> {
    return sizesIn(this.at(name));
  }

  /** @throws Error for a name that would lead out of the store */
  private at(name: string): string {
    if (!NAME.test(name)) throw new Error(`No file can have the name "${name}".`);
    return join(this.root, name);
  }
}

/** A second name where the disk has such, else a copy; one that is there already stays. */
async function linkOrCopy(from: string, to: string): Promise<void> {
  await link(from, to).catch((error: unknown) => {
    if (codeOf(error) === 'EEXIST') return;
    if (codeOf(error) === 'ENOENT') throw error;
    return writeWhole(to, (part) => copyFile(from, part));
  });
}

async function sizesIn(folder: string): Promise<Map<string, number>> {
  const entries = await readdir(folder, { withFileTypes: true }).catch(() => []);
  const all = new Map<string, number>();
  for (const entry of entries) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) for (const [file, size] of await sizesIn(path)) all.set(file, size);
    else {
      const found = await stat(path).catch(() => null);
      if (found) all.set(`${found.dev}:${found.ino}`, found.size);
    }
  }
  return all;
}
