import { nanoid } from 'nanoid';
import { createContext, useContext } from 'react';
import { createStore, useStore, type StoreApi } from 'zustand';
import { useShallow } from 'zustand/react/shallow';
import type { FootageView } from '@/contract/footage';
import type { OpenedProject } from '@/contract/projects';
import type { ProjectState } from '@/contract/state';
import { EditError } from '@/core/edit/error';
import {
  doEdit,
  EMPTY_HISTORY,
  goToStep,
  type HistoryEntry,
  type Versioned,
} from '@/core/edit/history';
import { PatchError } from '@/core/edit/patch';
import {
  prepareEdit,
  type EditArgs,
  type EditCall,
  type EditId,
  type EditResult,
} from '@/core/edit/registry';
import { findSpan, SPAN_LISTS, type SpanList } from '@/core/edit/spans';
import type { PlanView } from '@/core/frame/plan-frame';
import type { Project } from '@/core/project/model';
import { findClip, projectDuration } from '@/core/project/query';
import { NO_SOURCES, type Sources } from '@/core/project/sources';
import type { Ticks } from '@/core/time/ticks';
import { tell, tellFault } from '../shell/notices-store';

export type Selection =
  | { readonly kind: 'clip' | SpanList | 'step' | 'marker' | 'lane'; readonly id: string }
  | { readonly kind: 'presenter' | 'project' }
  | null;

export type Dialogs = 'export' | 'commands' | 'keys' | 'history' | 'freeze' | 'retake';
export type Panel = 'steps' | 'footage' | 'details';
/**
 * `failed` is tried again; `refused` waits for the next edit, since the same would be refused
 * again.
 */
export type SaveState = 'saved' | 'waiting' | 'saving' | 'failed' | 'refused' | 'stale';

/**
 * A drag under way: each move is an edit of the state at its start, and takes the place of the move
 * before.
 */
export interface Drag {
  /**
   * Does the edit of a move. Once another edit was done meanwhile, as by a key, the drag is over
   * and this does nothing.
   */
  readonly to: (...call: EditCall) => void;
}

export interface EditorState extends Versioned {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly save: SaveState;
  /** Why the last save was refused or failed. */
  readonly saveFault: string | null;
  readonly connected: boolean;
  readonly suggestion: OpenedProject['suggestion'];
  readonly footage: readonly FootageView[];
  readonly jobs: ProjectState['jobs'];
  readonly exports: ProjectState['exports'];
  readonly takes: ProjectState['takes'];
  readonly analyses: ProjectState['analyses'];
  readonly sources: Sources;
  readonly selection: Selection;
  /** Clips and spans that are selected with it. */
  readonly also: readonly string[];
  /** In and out points; a range is there when both are. */
  readonly range: { readonly in: Ticks | null; readonly out: Ticks | null };
  /** Lanes that commands on the range act on; null for all that are not locked. */
  readonly rangeLanes: readonly string[] | null;
  /** The group whose clips are edited one by one. */
  readonly openGroup: string | null;
  readonly panel: Panel;
  /** What is open over the place. */
  readonly dialog: Dialogs | null;
  readonly playhead: Ticks;
  readonly rate: number;
  readonly frames: { readonly dropped: number; readonly shown: number };
  /** Timeline scale. */
  readonly pixelsPerSecond: number;
  readonly snapping: boolean;
  readonly view: PlanView;
  /** The thing whose text is to be typed next: its field takes the keys as soon as it is there. */
  readonly typeInto: string | null;
  /** The next press on the Picture picks the wall's colour. */
  readonly picking: boolean;

  /**
   * Does an edit; a refusal becomes a message. Answers what the edit does, or null when it was
   * refused.
   *
   * @param merge joins the edit before it, when that had the same label and selection and was of
   * the same gesture
   */
  readonly apply: <I extends EditId>(
    id: I,
    args: EditArgs<I>,
    merge?: boolean,
  ) => { readonly result: EditResult<I> } | null;
  /** What is edited from now on is another gesture, and so another step of undo. */
  readonly endGesture: () => void;
  /** Begins a drag. */
  readonly drag: () => Drag;
  /** Takes over a state that came from elsewhere, as it is saved or is to be. */
  readonly adopt: (next: Versioned, revision: number, save: SaveState) => void;
  readonly undo: () => void;
  readonly redo: () => void;
  /** Goes to the state in which so many edits are done. */
  readonly goTo: (count: number) => void;
  readonly select: (selection: Selection, also?: readonly string[]) => void;
  readonly set: (change: Partial<EditorState>) => void;
}

const itemIds = (project: Project): string[] => [
  ...project.lanes.flatMap((l) => l.clips.map((c) => c.id)),
  ...SPAN_LISTS.flatMap((list) => (project[list] as readonly { id: string }[]).map((s) => s.id)),
];

/** More than so many things that come back with an undo are not selected. */
const MOST_COME_BACK = 12;

/** What an undo or redo brought back, as a selection. */
function cameBack(
  before: Project,
  after: Project,
): { selection: Selection; also: readonly string[] } | null {
  const known = new Set(itemIds(before));
  const ids = itemIds(after).filter((id) => !known.has(id));
  const [first, ...also] = ids;
  if (!first || ids.length > MOST_COME_BACK) return null;
  const list = findSpan(after, first)?.list;
  return { selection: { kind: list ?? 'clip', id: first }, also };
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
  /** The edit that the next one of the same gesture joins. */
  let gesture: { readonly key: string; readonly entry: HistoryEntry } | null = null;
  return createStore<EditorState>()((set, get) => {
    const take = (next: Versioned) => {
      if (next.project === get().project) return;
      const { selection: before, panel, save } = get();
      const selection = stillThere(next.project, before);
      const gone = before !== null && selection === null;
      const also = get().also.length
        ? get().also.filter((id) => findClip(next.project, id) ?? findSpan(next.project, id))
        : get().also;
      set({
        project: next.project,
        history: next.history,
        save: save === 'stale' ? 'stale' : 'waiting',
        selection,
        also: gone ? [] : also,
        ...(gone ? { view: {}, panel: panel === 'details' ? 'steps' : panel } : {}),
      });
    };
    return {
      ...opened,
      save: 'saved',
      saveFault: null,
      connected: true,
      footage: [],
      jobs: [],
      exports: [],
      takes: [],
      analyses: [],
      sources: NO_SOURCES,
      selection: null,
      also: [],
      range: { in: null, out: null },
      rangeLanes: null,
      openGroup: null,
      panel: 'steps',
      dialog: null,
      playhead: 0,
      rate: 0,
      frames: { dropped: 0, shown: 0 },
      pixelsPerSecond: 12,
      snapping: true,
      view: {},
      picking: false,
      typeInto: null,
      apply(id, args, merge = false) {
        try {
          const { history, selection, project, sources } = get();
          const { label, edit, result } = prepareEdit(id, args, project, sources, nanoid);
          const key = `${label} ${JSON.stringify(selection)}`;
          const joins = merge && gesture?.key === key && gesture.entry === history.done.at(-1);
          take(doEdit(get(), label, edit, joins));
          const entry = get().history.done.at(-1);
          gesture = merge && entry ? { key, entry } : null;
          return { result: result() };
        } catch (error) {
          if (!(error instanceof EditError)) throw error;
          tellFault(error);
          return null;
        }
      },
      adopt(next, revision, save) {
        gesture = null;
        take(next);
        set({ history: next.history, revision, save, saveFault: null });
      },
      endGesture() {
        gesture = null;
      },
      drag() {
        const base = get();
        let shown = base.project;
        return {
          to(...[id, args]: EditCall) {
            if (get().project !== shown) return;
            try {
              const { project, sources } = base;
              const { label, edit } = prepareEdit(id, args as never, project, sources, nanoid);
              const next = doEdit(base, label, edit);
              take(next);
              shown = next.project;
            } catch (error) {
              // In the middle of a drag a place without room is simply not taken.
              if (!(error instanceof EditError)) throw error;
            }
          },
        };
      },
      undo() {
        const { done } = get().history;
        const label = done.at(-1)?.label;
        get().goTo(done.length - 1);
        if (label) tell(`Undone: ${label}`);
      },
      redo() {
        const { done, undone } = get().history;
        const label = undone.at(-1)?.label;
        get().goTo(done.length + 1);
        if (label) tell(`Done again: ${label}`);
      },
      goTo(count) {
        const before = get().project;
        gesture = null;
        try {
          take(goToStep(get(), Math.max(0, count)));
        } catch (error) {
          if (!(error instanceof PatchError)) throw error;
          set({ history: EMPTY_HISTORY });
          return tellFault('The undo history does not fit this project and begins anew.');
        }
        const { project, selection, playhead, panel } = get();
        const back = selection ? null : cameBack(before, project);
        if (back) set({ ...back, panel: panel === 'footage' ? panel : 'details' });
        if (playhead > projectDuration(project)) set({ playhead: projectDuration(project) });
      },
      select: (selection, also = []) =>
        set({
          selection,
          also,
          view: {},
          picking: false,
          panel: selection ? 'details' : get().panel === 'details' ? 'steps' : get().panel,
        }),
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
export const useEditor = <T>(select: (state: EditorState) => T): T =>
  useStore(useEditorStore(), useShallow(select));

/** Ids of all clips that are selected. */
export function selectedClips({
  selection,
  also,
  project,
}: Pick<EditorState, 'selection' | 'also' | 'project'>): string[] {
  const ids = selection && 'id' in selection ? [selection.id, ...also] : [];
  return ids.filter((id) => findClip(project, id));
}

/** Ids of all spans that are selected. */
export function selectedSpans({
  selection,
  also,
  project,
}: Pick<EditorState, 'selection' | 'also' | 'project'>): string[] {
  const ids = selection && 'id' in selection ? [selection.id, ...also] : [];
  return ids.filter((id) => findSpan(project, id));
}

/** The range between the in and out points, if both are set. */
export const rangeOf = ({
  range,
}: Pick<EditorState, 'range'>): { start: Ticks; end: Ticks } | null =>
  range.in !== null && range.out !== null && range.out > range.in
    ? { start: range.in, end: range.out }
    : null;
