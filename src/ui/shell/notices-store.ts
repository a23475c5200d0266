import { nanoid } from 'nanoid';
import { create } from 'zustand';

export interface Notice {
  readonly id: string;
  readonly text: string;
  readonly tone: 'plain' | 'fault';
  /** What can be done about it at once. */
  readonly actions: readonly NoticeAction[];
}

export interface NoticeAction {
  readonly label: string;
  readonly run: () => void;
}

interface NoticesState {
  readonly notices: readonly Notice[];
  readonly add: (notice: Omit<Notice, 'id'>) => void;
  readonly remove: (id: string) => void;
}

/** A message stays so long, in milliseconds. */
export const SHOWN_MS = 9000;

/** Short messages at the foot of the page. */
export const useNotices = create<NoticesState>((set) => ({
  notices: [],
  add: (notice) => {
    const id = nanoid();
    set((s) => ({
      notices: [...s.notices.filter((n) => n.text !== notice.text), { ...notice, id }].slice(-3),
    }));
  },
  remove: (id) => set((s) => ({ notices: s.notices.filter((n) => n.id !== id) })),
}));

export const tell = (text: string, ...actions: readonly NoticeAction[]): void =>
  useNotices.getState().add({ text, tone: 'plain', actions });
export const tellFault = (error: unknown): void =>
  useNotices.getState().add({
    text: error instanceof Error ? error.message : String(error),
    tone: 'fault',
    actions: [],
  });
