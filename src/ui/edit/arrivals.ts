import { create } from 'zustand';
import { useUploads } from './upload-store';

/** Files that were brought together, and what becomes of them. */
export interface Arrival {
  readonly id: string;
  readonly projectId: string;
  /** The footage that they became, once all are sent; those that were refused are left out. */
  readonly footage: Promise<readonly string[]>;
}

interface Arrivals {
  readonly arrivals: readonly Arrival[];
  /**
   * Brings files to a project's footage.
   *
   * @param there footage that is there already and came with them, as the same file does twice
   */
  readonly bring: (projectId: string, files: readonly File[], there?: readonly string[]) => void;
  readonly end: (id: string) => void;
}

/** Files in the order in which a person would name them: 2 before 10. */
const inOrder = (files: readonly File[]): File[] => {
  const { compare } = new Intl.Collator(undefined, { numeric: true });
  return [...files].sort((a, b) => compare(a.name, b.name));
};

/**
 * What was brought and is on its way to the timeline. It outlives the place in which it was dropped:
 * the next one that has the project open goes on with it.
 */
export const useArrivals = create<Arrivals>((set) => ({
  arrivals: [],
  bring(projectId, files, there = []) {
    const sent = useUploads.getState().add(projectId, inOrder(files));
    const footage = sent.then((ids) => [...there, ...ids.filter((id) => id !== null)]);
    const arrival = { id: crypto.randomUUID(), projectId, footage };
    set((s) => ({ arrivals: [...s.arrivals, arrival] }));
  },
  end: (id) => set((s) => ({ arrivals: s.arrivals.filter((a) => a.id !== id) })),
}));
