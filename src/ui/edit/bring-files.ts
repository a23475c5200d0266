import type { StoreApi } from 'zustand';
import { tell } from '../shell/notices-store';
import { useArrivals } from './arrivals';
import type { EditorState } from './session/state';

/**
 * Brings files to the open project. A file that is in Footage already, by its name and size, is not
 * sent once more.
 */
export function bringFiles(store: StoreApi<EditorState>, files: readonly File[]): void {
  const { id, footage, panel, set } = store.getState();
  const same = (file: File) =>
    footage.find((f) => f.status !== 'failed' && f.name === file.name && f.bytes === file.size);
  const there = files.flatMap((file) => same(file) ?? []);
  const fresh = files.filter((file) => !same(file));
  if (there.length)
    tell(
      there.length === 1
        ? `${there[0]!.name} is in Footage already.`
        : `${there.length} of these files are in Footage already.`,
    );
  useArrivals.getState().bring(
    id,
    fresh,
    there.map((f) => f.id),
  );
  if (panel !== 'footage') set({ panel: 'footage' });
}
