import { nanoid } from 'nanoid';
import type { OpenedProject } from '@/contract/projects';
import { EditError } from '@/core/edit/error';
import {
  doEdit,
  EMPTY_HISTORY,
  goToStep,
  type HistoryEntry,
  type Versioned,
} from '@/core/edit/history';
import { PatchError } from '@/core/edit/patch';
import { prepareEdit, type EditCall } from '@/core/edit/registry';
import { findSpan } from '@/core/edit/spans';
import { SPAN_LISTS } from '@/core/project/span-lists';
import type { Project } from '@/core/project/model';
import { findClip, projectDuration } from '@/core/project/query';
import { tell, tellFault } from '../../shell/notices-store';
import type { Change, DocumentSlice, Get, Selection } from './state';

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

/** The document and what is done to it. */
export function documentSlice(
  set: Change,
  get: Get,
  { id, name, project, history, revision, suggestion }: OpenedProject,
): DocumentSlice {
  /** The edit that the next one of the same gesture joins. */
  let gesture: { readonly key: string; readonly entry: HistoryEntry } | null = null;
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
    ...{ id, name, project, history, revision, suggestion },
    save: 'saved',
    saveFault: null,
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
      let refusal: EditError | null = null;
      return {
        to(...[id, args]: EditCall) {
          if (get().project !== shown) return;
          try {
            const { project, sources } = base;
            const { label, edit } = prepareEdit(id, args as never, project, sources, nanoid);
            const next = doEdit(base, label, edit);
            take(next);
            shown = next.project;
            refusal = null;
          } catch (error) {
            // In the middle of a drag a place without room is simply not taken.
            if (!(error instanceof EditError)) throw error;
            refusal = error;
          }
        },
        end() {
          if (refusal) tellFault(refusal);
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
      const { project, selection, panel, transport } = get();
      const back = selection ? null : cameBack(before, project);
      if (back) set({ ...back, panel: panel === 'footage' ? panel : 'details' });
      const end = projectDuration(project);
      if (transport.getState().playhead > end) transport.setState({ playhead: end });
    },
  };
}
