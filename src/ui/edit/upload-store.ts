import pLimit from 'p-limit';
import * as tus from 'tus-js-client';
import { create } from 'zustand';
import { UPLOADS } from '@/contract/footage';
import { tell, tellFault } from '../shell/notices-store';

interface UploadItem {
  readonly id: string;
  /** The project whose footage it becomes. */
  readonly projectId: string;
  readonly name: string;
  readonly share: number;
  readonly state: 'queued' | 'going' | 'waiting' | 'failed';
  readonly message: string;
  /** Ends it; of one that failed, takes its message away. */
  readonly cancel: () => void;
}

interface UploadState {
  readonly items: readonly UploadItem[];
  /**
   * Sends files, a few at once.
   *
   * @param relink footage whose file is missing or changed, for which the file is to stand
   * @returns the footage that each became; null where it was refused or cancelled
   */
  readonly add: (
    projectId: string,
    files: readonly File[],
    relink?: string,
  ) => Promise<readonly (string | null)[]>;
}

const CHUNK = 8 << 20;
/** More at once would leave a browser no connection for anything else. */
const AT_ONCE = 3;
const RETRIES = [0, 1000, 3000, 5000, 10_000, 20_000, 30_000];

/** Uploads under way, by an open protocol that resumes after a break or a restart of the server. */
export const useUploads = create<UploadState>((set, get) => {
  const change = (id: string, what: Partial<UploadItem>) =>
    set((s) => ({ items: s.items.map((item) => (item.id === id ? { ...item, ...what } : item)) }));
  const remove = (id: string) => set((s) => ({ items: s.items.filter((item) => item.id !== id) }));
  const limit = pLimit(AT_ONCE);
  const send = (id: string, projectId: string, file: File, relink?: string) => {
    let settle: (footageId: string | null) => void = () => {};
    const settled = new Promise<string | null>((resolve) => (settle = resolve));
    const fail = (message: string) => {
      change(id, { state: 'failed', message, cancel: () => remove(id) });
      settle(null);
    };
    /** A file that changed since it was chosen can't be read any more: no use to try again. */
    const endIfChanged = () =>
      void file
        .slice(0, 1)
        .arrayBuffer()
        .catch(async () => {
          await upload.abort(true).catch(() => {});
          fail(
            `${file.name} changed while it was being sent: it is still being written, or was moved or deleted. Add it again once it is finished.`,
          );
        });
    const upload = new tus.Upload(file, {
      endpoint: UPLOADS,
      chunkSize: CHUNK,
      retryDelays: RETRIES,
      removeFingerprintOnSuccess: true,
      // The same file in another project is another upload.
      fingerprint: (f) =>
        Promise.resolve(
          [
            'vistum',
            projectId,
            relink ?? '',
            (f as File).name,
            (f as File).size,
            (f as File).lastModified,
          ].join('-'),
        ),
      metadata: { filename: file.name, project: projectId, ...(relink ? { relink } : {}) },
      onProgress: (sent, total) =>
        change(id, { share: total ? sent / total : 0, state: 'going', message: '' }),
      onShouldRetry: (error) => {
        const status = (error as tus.DetailedError).originalResponse?.getStatus() ?? 0;
        // A refusal stays one; a full disk does not empty itself.
        const refused = status >= 400 && status < 500 && status !== 409 && status !== 423;
        const again = !refused && status !== 507;
        if (again) change(id, { state: 'waiting', message: 'The connection broke; trying again' });
        if (!status) endIfChanged();
        return again;
      },
      onSuccess: ({ lastResponse }) => {
        remove(id);
        settle(lastResponse.getHeader('x-vistum-footage') ?? null);
        if (relink)
          tell(`${file.name} stands for the missing file. Its preview is being made again.`);
      },
      onError: (error) => {
        const said = (error as tus.DetailedError).originalResponse?.getBody();
        const message =
          said && !said.startsWith('<')
            ? said
            : `${file.name} could not be uploaded: the server does not answer. Drop it again to go on where it stopped.`;
        fail(message);
      },
    });
    const cancel = () => {
      settle(null);
      void upload.abort(true).finally(() => remove(id));
    };
    change(id, { state: 'going', cancel });
    void upload.findPreviousUploads().then((previous) => {
      if (previous[0]) upload.resumeFromPreviousUpload(previous[0]);
      upload.start();
    });
    return settled;
  };
  const start = (projectId: string, file: File, relink?: string): Promise<string | null> => {
    const id = crypto.randomUUID();
    let dropped = false;
    const cancel = () => {
      dropped = true;
      remove(id);
    };
    const item = { id, projectId, name: file.name, share: 0, message: '', cancel } as const;
    set((s) => ({ items: [...s.items, { ...item, state: 'queued' }] }));
    return limit(() => (dropped ? null : send(id, projectId, file, relink)));
  };
  return {
    items: [],
    async add(projectId, files, relink) {
      const before = new Set(get().items.map(({ id }) => id));
      const sent = await Promise.all(files.map((file) => start(projectId, file, relink)));
      const failed = get().items.filter(({ id, state }) => state === 'failed' && !before.has(id));
      if (failed.length === 1) tellFault(failed[0]!.message);
      else if (failed.length)
        tellFault(`${failed.length} files could not be added. Footage says why for each.`);
      return sent;
    },
  };
});
