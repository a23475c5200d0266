import type { StoreApi } from 'zustand';
import type { PlaceOptions } from '@/core/edit/place';
import type { Ticks } from '@/core/time/ticks';
import type { EditorState } from './session/state';

/**
 * Places recordings one after the other, each with the part that was chosen in Footage, as one step
 * of the history.
 *
 * @param at where the first begins; null puts each at the end of its lane
 */
export function placeParts(
  store: StoreApi<EditorState>,
  footageIds: readonly string[],
  at: Ticks | null,
  mode: PlaceOptions['mode'],
  laneId: string | null,
): boolean {
  const { footage, apply } = store.getState();
  const parts = footageIds.map((footageId) => {
    const view = footage.find((f) => f.id === footageId);
    const chosen = view && (view.inPoint !== null || view.outPoint !== null);
    const from = view?.inPoint ?? 0;
    const to = view?.outPoint ?? view?.facts?.duration ?? from;
    return { footageId, part: chosen ? { from, to } : null };
  });
  const done = apply('place-footage', { parts, at, mode, laneId });
  const ids = done?.result ?? [];
  if (ids[0]) {
    const { panel, select, set } = store.getState();
    select({ kind: 'clip', id: ids[0] }, ids.slice(1));
    // Whoever places from Footage goes on there.
    if (panel === 'footage') set({ panel: 'footage' });
  }
  return done !== null;
}
