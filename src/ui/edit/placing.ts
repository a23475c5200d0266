import type { StoreApi } from 'zustand';
import { placeFootage, type PlaceOptions } from '@/core/edit/place';
import { EditError } from '@/core/edit/error';
import { findClip } from '@/core/project/query';
import { clipEnd } from '@/core/project/clip-time';
import type { Ticks } from '@/core/time/ticks';
import type { EditorState } from './store';

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
  newId: () => string,
): boolean {
  const { sources, footage, edit } = store.getState();
  const ids: string[] = [];
  const done = edit(
    footageIds.length > 1 ? `Place ${footageIds.length} recordings` : 'Place footage',
    (draft) => {
      let time = at;
      for (const footageId of footageIds) {
        const facts = sources.footage[footageId];
        if (!facts)
          throw new EditError(
            'The recording is not ready yet. Wait until it is prepared, then place it.',
          );
        const view = footage.find((f) => f.id === footageId);
        const part =
          view && (view.inPoint !== null || view.outPoint !== null)
            ? { from: view.inPoint ?? 0, to: view.outPoint ?? facts.duration }
            : null;
        const placed = placeFootage(draft, facts, time, newId, { mode, part, laneId });
        ids.push(...placed);
        if (time !== null)
          time = Math.max(...placed.map((id) => clipEnd(findClip(draft, id)!.clip)));
      }
    },
  );
  if (done && ids[0]) {
    const { panel, select, set } = store.getState();
    select({ kind: 'clip', id: ids[0] }, ids.slice(1));
    // Whoever places from Footage goes on there.
    if (panel === 'footage') set({ panel: 'footage' });
  }
  return done;
}
