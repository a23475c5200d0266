import { readdir } from 'node:fs/promises';
import { footageFile, footageFiles, pieceFile } from '../footage/names';
import type { FileStore } from '../stores/file-store';

const PIECE = /^proxy-(\d{4})\.mp4$/;

/** Whether a file is a piece of a proxy that is being made. */
export const isPiece = (name: string): boolean => PIECE.test(name);

/** How many pieces there are from the first on without a gap, among files of a recording. */
export function countPieces(names: readonly string[]): number {
  const there = new Set(names);
  let count = 0;
  while (there.has(pieceFile(count))) count++;
  return count;
}

/** Removes the pieces of a recording's proxy. */
export async function removePieces(files: FileStore, footageId: string): Promise<void> {
  for (const { name } of await files.list(footageFiles(footageId)))
    if (isPiece(name)) await files.remove(footageFile(footageId, name));
}

/**
 * Keeps the pieces of a proxy as they become whole: each is, once the next has begun.
 *
 * @param keep gives a file of the folder its place
 */
export function keepPieces(
  folder: string,
  keep: (name: string) => Promise<void>,
): { readonly look: () => void; readonly done: () => Promise<void> } {
  let working: Promise<void> | null = null;
  let failure: unknown = null;
  const move = async () => {
    const names = (await readdir(folder)).filter(isPiece).sort();
    for (const name of names.slice(0, -1)) await keep(name);
  };
  return {
    look() {
      working ??= move()
        .catch((error: unknown) => {
          failure ??= error;
        })
        .finally(() => {
          working = null;
        });
    },
    async done() {
      await working;
      if (failure) throw failure;
    },
  };
}
