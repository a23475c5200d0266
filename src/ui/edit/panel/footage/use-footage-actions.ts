'use client';
import { nanoid } from 'nanoid';
import { liftClips } from '@/core/edit/clips';
import { changeCanvas, changeLook } from '@/core/edit/settings';
import type { PlaceOptions } from '@/core/edit/place';
import type { Clip, Lane } from '@/core/project/model';
import type { Remedy } from '@/core/scale/mismatch';
import { snapToFrame } from '@/core/time/ticks';
import type { FootageChange } from '@/server/footage/change';
import type { FootageView } from '@/server/footage/view';
import { api } from '../../../shell/api';
import { tell, tellFault } from '../../../shell/notices-store';
import { placeParts } from '../../placing';
import { useEditorStore } from '../../store';

/** What can be done with footage. */
export function useFootageActions() {
  const store = useEditorStore();
  const change = (id: string, body: FootageChange & { deleted?: boolean }) =>
    api(`/api/footage/${id}`, { method: 'PATCH', body }).then(
      () => true,
      (error: unknown) => {
        tellFault(error);
        return false;
      },
    );
  const place = (ids: readonly string[], mode: PlaceOptions['mode'] | 'end') => {
    const { playhead, project } = store.getState();
    const at = snapToFrame(playhead, project.canvas.frameRate);
    return placeParts(
      store,
      ids,
      mode === 'end' ? null : at,
      mode === 'end' ? 'free' : mode,
      null,
      nanoid,
    );
  };
  const usesOf = (id: string): { lane: Lane; clip: Clip }[] =>
    store
      .getState()
      .project.lanes.flatMap((lane) =>
        lane.clips.filter((c) => c.footageId === id).map((clip) => ({ lane, clip })),
      );
  const remove = async (view: FootageView) => {
    const clips = usesOf(view.id).map((u) => u.clip.id);
    if (
      clips.length &&
      !store.getState().edit(`Lift ${view.name}`, (draft) => liftClips(draft, clips))
    )
      return;
    if (!(await change(view.id, { deleted: true }))) return;
    tell(`“${view.name}” was taken out of Footage.`, {
      label: 'Undo',
      run: () => {
        void change(view.id, { deleted: false });
        if (clips.length && store.getState().history.done.at(-1)?.label === `Lift ${view.name}`)
          store.getState().undo();
      },
    });
  };
  const remedy = (view: FootageView, what: Remedy) => {
    const { edit } = store.getState();
    if (what.kind === 'look') edit('Fit or fill', (draft) => changeLook(draft, view.id, what.look));
    else if (what.kind === 'size')
      edit('Project size', (draft) =>
        changeCanvas(draft, { width: what.width, height: what.height }),
      );
    else
      edit('Project frame rate', (draft) =>
        changeCanvas(draft, { frameRate: { ...what.frameRate } }),
      );
  };
  return { change, place, usesOf, remove, remedy };
}
