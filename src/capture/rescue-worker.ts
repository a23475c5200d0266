import { expose } from 'comlink';
import { call } from '@/contract/call';
import { address } from '@/contract/route';
import { addPiece, beginTake, viewTake, type TakeBegun } from '@/contract/takes';
import {
  FileStore,
  localTake,
  localTakes,
  readNote,
  removeLocalTake,
  TAKE_NOTE,
} from './part-store';
import { Uploader } from './uploader';

/** A take of which something lies in this browser. */
export interface StrandedTake {
  readonly takeId: string;
  readonly projectId: string;
  readonly bytes: number;
}

interface Note {
  readonly projectId: string;
  readonly body: TakeBegun;
}

/** Tries, a second apart, before a rescue is given up for now. */
const MOST_FAILURES = 10;
const NOT_TAKEN =
  'The server does not answer, or its disk is full. What was recorded is kept in this browser; try again later.';

async function noteOf(folder: FileSystemDirectoryHandle): Promise<Note | null> {
  const text = await readNote(folder);
  try {
    return text ? (JSON.parse(text) as Note) : null;
  } catch {
    return null;
  }
}

async function partsOf(
  folder: FileSystemDirectoryHandle,
): Promise<[string, FileSystemFileHandle][]> {
  const parts: [string, FileSystemFileHandle][] = [];
  for await (const [name, handle] of folder.entries())
    if (handle.kind === 'file' && name !== TAKE_NOTE)
      parts.push([name, handle as FileSystemFileHandle]);
  return parts;
}

/** Opens a part; null while another tab writes to it. */
const openStore = async (handle: FileSystemFileHandle): Promise<FileStore | null> =>
  handle.createSyncAccessHandle().then(
    (access) => new FileStore(access),
    () => null,
  );

class RescueWorker {
  /** Takes of a project that lie here and that no tab is recording. */
  async find(projectId: string): Promise<StrandedTake[]> {
    const found: StrandedTake[] = [];
    for (const takeId of await localTakes()) {
      const folder = await localTake(takeId, false);
      const note = folder && (await noteOf(folder));
      if (!folder || !note || note.projectId !== projectId) continue;
      let bytes = 0;
      let busy = false;
      for (const [, handle] of await partsOf(folder)) {
        const store = await openStore(handle);
        busy ||= !store;
        bytes += store?.size ?? 0;
        store?.close();
      }
      if (!busy) found.push({ takeId, projectId, bytes });
    }
    return found;
  }

  /**
   * Gives the server what it does not have of a take. Throws a sentence when it can't be reached.
   */
  async send(takeId: string): Promise<void> {
    const folder = await localTake(takeId, false);
    const note = folder && (await noteOf(folder));
    if (!folder || !note) return;
    const take = await call(beginTake, { params: { id: note.projectId }, body: note.body })
      .then(() => call(viewTake, { params: { id: takeId } }))
      .catch(() => {
        throw new Error(NOT_TAKEN);
      });
    if (take.status === 'recording')
      for (const [name, handle] of await partsOf(folder)) {
        const store = await openStore(handle);
        if (!store) continue;
        let failures = 0;
        const uploader = new Uploader(
          address(addPiece, { id: takeId, name }),
          store,
          (state) => (failures = state === 'here' ? 0 : failures + 1),
        );
        uploader.from(take.sizes[name] ?? 0);
        uploader.push();
        while (uploader.waiting > 0 && !uploader.ended && failures < MOST_FAILURES)
          await new Promise((resolve) => setTimeout(resolve, 50));
        uploader.stop();
        store.close();
        if (failures >= MOST_FAILURES) throw new Error(NOT_TAKEN);
      }
    await removeLocalTake(takeId);
  }

  /** Forgets what lies here of a take. */
  forget = (takeId: string): Promise<void> => removeLocalTake(takeId);
}

export type RescueApi = RescueWorker;
expose(new RescueWorker());
