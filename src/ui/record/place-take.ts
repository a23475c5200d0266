import { nanoid } from 'nanoid';
import type { StoreApi } from 'zustand';
import { changeLook, changePresenter } from '@/core/edit/settings';
import { addLiveData, placeTake } from '@/core/edit/take';
import { liveData } from '@/core/take/live';
import { ticksToSeconds } from '@/core/time/ticks';
import type { TakePlacement } from '@/server/takes/keep';
import type { EditorState } from '../edit/store';
import { api } from '../shell/api';

/**
 * Keeps a take and puts it at its step of the open project, as one step of the undo history.
 * Answers whether it stands there.
 */
export async function keepAndPlace(
  editor: StoreApi<EditorState>,
  takeId: string,
): Promise<boolean> {
  const placement = await api<TakePlacement>(`/api/takes/${takeId}/keep`, { method: 'POST' });
  return editor.getState().edit('Keep take', (draft) => {
    const { setup, events, tracks } = placement;
    const stepId = draft.steps.some((s) => s.id === placement.stepId) ? placement.stepId : null;
    const placed = placeTake(
      draft,
      stepId,
      tracks.map((t) => ({
        name: t.name,
        footageId: t.footageId,
        offset: t.offset,
        duration: t.duration,
        gain: t.name === 'voice' ? setup.gain : 0,
      })),
      nanoid,
    );
    const screen = tracks.find((t) => t.name === 'screen');
    const camera = tracks.find((t) => t.name === 'camera');
    if (screen && setup.area) changeLook(draft, screen.footageId, { area: { ...setup.area } });
    if (camera) {
      const { area, brightness, contrast, mirror } = setup.camera;
      if (area || brightness !== 0 || contrast !== 1)
        changeLook(draft, camera.footageId, { area: area && { ...area }, brightness, contrast });
      if (mirror !== draft.presenter.mirror) changePresenter(draft, { mirror });
    }
    addLiveData(
      draft,
      liveData(
        events,
        {
          footageId: screen?.footageId ?? null,
          area: setup.area ?? {
            x: 0,
            y: 0,
            width: screen?.width ?? 16,
            height: screen?.height ?? 9,
          },
          frame: draft.canvas,
          rate: draft.canvas.frameRate,
          start: placed.start,
          from: ticksToSeconds(placed.origin) * 1000,
          end: placed.end,
          hold: setup.hold,
        },
        nanoid,
      ),
      { start: placed.start, end: placed.end },
      nanoid,
    );
  });
}
