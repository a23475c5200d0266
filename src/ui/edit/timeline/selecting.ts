import type { StoreApi } from 'zustand';
import { groupMembers } from '@/core/edit/groups';
import { findClip } from '@/core/project/query';
import { selectionOf } from '../session/selection-of';
import type { EditorState } from '../session/state';

/** Selects things of the timeline, the first as the one whose Details are shown. */
export function selectItems(store: StoreApi<EditorState>, ids: readonly string[]): void {
  const state = store.getState();
  const [first, ...also] = ids;
  state.select(selectionOf(state.project, first ?? null), also);
}

/** What of the timeline is selected. */
export const selectedItems = ({
  selection,
  also,
}: Pick<EditorState, 'selection' | 'also'>): string[] =>
  selection && 'id' in selection && !['step', 'marker', 'lane'].includes(selection.kind)
    ? [selection.id, ...also]
    : [];

/**
 * A press on a thing: alone it selects it, with Ctrl it is added or taken away, with Shift all
 * clips up to it are added.
 */
export function pressItem(
  store: StoreApi<EditorState>,
  id: string,
  keys: { ctrl: boolean; shift: boolean },
): void {
  const state = store.getState();
  const chosen = selectedItems(state);
  const group = findClip(state.project, id)?.clip.group ?? null;
  const meant = group && group !== state.openGroup ? groupMembers(state.project, group) : [id];
  if (keys.ctrl)
    return selectItems(
      store,
      meant.every((m) => chosen.includes(m))
        ? chosen.filter((c) => !meant.includes(c))
        : [...chosen, ...meant],
    );
  const from = chosen[0] && findClip(state.project, chosen[0]);
  const to = findClip(state.project, id);
  if (keys.shift && from && to && from.lane === to.lane) {
    const [a, b] = [from.lane.clips.indexOf(from.clip), from.lane.clips.indexOf(to.clip)];
    const between = from.lane.clips.slice(Math.min(a, b), Math.max(a, b) + 1).map((c) => c.id);
    return selectItems(store, [...new Set([...chosen, ...between])]);
  }
  selectItems(store, [id, ...meant.filter((m) => m !== id)]);
}
