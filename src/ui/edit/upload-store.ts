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
  readonly state: 'going' | 'waiting' | 'failed';
  readonly message: string;
  readonly cancel: () => void;
}

interface UploadState {
  readonly items: readonly UploadItem[];
  /** @param relink footage whose file is missing or changed, for which the file is to stand */
  readonly add: (projectId: string, files: readonly File[], relink?: string) => void;
}

const CHUNK = 8 << 20;
const RETRIES = [0, 1000, 3000, 5000, 10_000, 20_000, 30_000];

/** Uploads under way, by an open protocol that resumes after a break or a restart of the server. */
export const useUploads = create<UploadState>((set) => {
  const change = (id: string, what: Partial<UploadItem>) =>
    set((s) => ({ items: s.items.map((item) => (item.id === id ? { ...item, ...what } : item)) }));
  const remove = (id: string) => set((s) => ({ items: s.items.filter((item) => item.id !== id) }));
  const start = (projectId: string, file: File, relink?: string) => {
    const id = crypto.randomUUID();
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
        return again;
      },
      onSuccess: () => {
        remove(id);
        if (relink)
          tell(`${file.name} stands for the missing file. Its preview is being made again.`);
      },
      onError: (error) => {
        const said = (error as tus.DetailedError).originalResponse?.getBody();
        const message =
          said && !said.startsWith('<')
            ? said
            : `${file.name} could not be uploaded: the server does not answer. Drop it again to go on where it stopped.`;
        tellFault(message);
        remove(id);
      },
    });
    set((s) => ({
      items: [
        ...s.items,
        {
          id,
          projectId,
          name: file.name,
          share: 0,
          state: 'going',
          message: '',
          cancel: () => void upload.abort(true).finally(() => remove(id)),
        },
      ],
    }));
    void upload.findPreviousUploads().then((previous) => {
      if (previous[0]) upload.resumeFromPreviousUpload(previous[0]);
      upload.start();
    });
  };
  return {
    items: [],
    add: (projectId, files, relink) => files.forEach((file) => start(projectId, file, relink)),
  };
});
