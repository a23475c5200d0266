import { createContext, useContext } from 'react';
import { createStore, useStore, type StoreApi } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import type { PlanView } from '@/core/frame/plan-frame';
import type { Edit } from '@/core/edit/apply';
import { EditError } from '@/core/edit/error';
import { doEdit, redo, undo, type History, type Versioned } from '@/core/edit/history';
import { findSpan, type SpanList } from '@/core/edit/spans';
import type { Project } from '@/core/project/model';
import { findClip } from '@/core/project/query';
import { NO_SOURCES, type Sources } from '@/core/project/sources';
import type { Ticks } from '@/core/time/ticks';
import type { FootageView } from '@/server/footage';
import type { ServerState } from './server-state';
import { tell, tellFault } from '../shell/notices-store';

export type Selection =
  | { readonly kind: 'clip' | SpanList | 'step' | 'marker' | 'lane'; readonly id: string }
  | { readonly kind: 'presenter' | 'project' }
  | null;

export type Panel = 'steps' | 'footage' | 'details';
export type SaveState = 'saved' | 'waiting' | 'saving' | 'failed' | 'stale';

export interface EditorState extends Versioned {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly save: SaveState;
  readonly connected: boolean;
  readonly suggestion: { readonly width: number; readonly height: number; readonly frameRate: { num: number; den: number } | null } | null;
  readonly footage: readonly FootageView[];
  readonly jobs: ServerState['jobs'];
  readonly exports: ServerState['exports'];
  readonly takes: ServerState['takes'];
  readonly sources: Sources;
  readonly selection: Selection;
  readonly panel: Panel;
  readonly playhead: Ticks;
  readonly rate: number;
  readonly frames: { readonly dropped: number; readonly shown: number };
  /** Timeline scale. */
  readonly pixelsPerSecond: number;
  readonly snapping: boolean;
  readonly view: PlanView;
  /** The next press on the Picture picks the wall's colour. */
  readonly picking: boolean;

  /** Does an edit; a refusal becomes a message. Answers whether it was done. */
  readonly edit: (label: string, edit: Edit, merge?: boolean) => boolean;
  /** Does an edit from an earlier state instead of the present one, as each move of a drag does. */
  readonly editFrom: (base: Versioned, label: string, edit: Edit) => void;
  readonly undo: () => void;
  readonly redo: () => void;
  readonly select: (selection: Selection) => void;
  readonly set: (change: Partial<EditorState>) => void;
}

export interface OpenedProject {
  readonly id: string;
  readonly name: string;
  readonly project: Project;
  readonly history: History;
  readonly revision: number;
  readonly suggestion: EditorState['suggestion'];
}

/** Whether what is selected is still there. */
function stillThere(project: Project, selection: Selection): Selection {
  if (!selection || !('id' in selection)) return selection;
  const { kind, id } = selection;
  const there =
    kind === 'clip'
      ? !!findClip(project, id)
      : kind === 'step'
        ? project.steps.some((s) => s.id === id)
        : kind === 'marker'
          ? project.markers.some((m) => m.id === id)
          : kind === 'lane'
            ? project.lanes.some((l) => l.id === id)
            : !!findSpan(project, id);
  return there ? selection : null;
}

export function createEditor(opened: OpenedProject): StoreApi<EditorState> {
  return createStore<EditorState>()((set, get) => {
    const take = (next: Versioned) => {
      if (next.project === get().project) return;
      const { selection: before, panel, save } = get();
      const selection = stillThere(next.project, before);
      const gone = before !== null && selection === null;
      set({
        project: next.project,
        history: next.history,
        save: save === 'stale' ? 'stale' : 'waiting',
        selection,
        ...(gone ? { view: {}, panel: panel === 'details' ? 'steps' : panel } : {}),
      });
    };
    return {
      ...opened,
      save: 'saved',
      connected: true,
      footage: [],
      jobs: [],
      exports: [],
      takes: [],
      sources: NO_SOURCES,
      selection: null,
      panel: 'steps',
      playhead: 0,
      rate: 0,
      frames: { dropped: 0, shown: 0 },
      pixelsPerSecond: 12,
      snapping: true,
      view: {},
      picking: false,
      edit(label, edit, merge = false) {
        try {
          take(doEdit(get(), label, edit, merge));
          return true;
        } catch (error) {
          if (!(error instanceof EditError)) throw error;
          tellFault(error);
          return false;
        }
      },
      editFrom(base, label, edit) {
        try {
          take(doEdit(base, label, edit));
        } catch (error) {
          // In the middle of a drag a place without room is simply not taken.
          if (!(error instanceof EditError)) throw error;
        }
      },
      undo() {
        const label = get().history.done.at(-1)?.label;
        take(undo(get()));
        if (label) tell(`Undone: ${label}`);
      },
      redo() {
        const label = get().history.undone.at(-1)?.label;
        take(redo(get()));
        if (label) tell(`Done again: ${label}`);
      },
      select: (selection) =>
        set({ selection, view: {}, picking: false, panel: selection ? 'details' : get().panel === 'details' ? 'steps' : get().panel }),
      set: (change) => set(change),
    };
  });
}

const EditorContext = createContext<StoreApi<EditorState> | null>(null);
export const EditorProvider = EditorContext.Provider;

export function useEditorStore(): StoreApi<EditorState> {
  const store = useContext(EditorContext);
  if (!store) throw new Error('There is no editor around this component.');
  return store;
}

/** A part of the editor's state; the component is drawn again when it changes. */
export const useEditor = <T>(select: (state: EditorState) => T): T => useStore(useEditorStore(), useShallow(select));
