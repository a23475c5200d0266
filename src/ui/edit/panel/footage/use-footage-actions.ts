'use client';
import { call } from '@/contract/call';
import { changeFootage, type FootageChange, type FootageView } from '@/contract/footage';
import type { PlaceOptions } from '@/core/edit/place';
import type { Clip, Lane } from '@/core/project/model';
import { shownFootage } from '@/core/project/query';
import type { Remedy } from '@/core/scale/mismatch';
import { snapToFrame } from '@/core/time/ticks';
import { tell, tellFault } from '../../../shell/notices-store';
import { placeParts } from '../../placing';
import { playheadOf, useEditorStore } from '../../store';

/** What can be done with footage. */
export function useFootageActions() {
  const store = useEditorStore();
  const change = (id: string, body: FootageChange & { deleted?: boolean }) =>
    call(changeFootage, { params: { id }, body }).then(
      () => true,
      (error: unknown) => {
        tellFault(error);
        return false;
      },
    );
  const place = (ids: readonly string[], mode: PlaceOptions['mode'] | 'end') => {
    const { project } = store.getState();
    const playhead = playheadOf(store.getState());
    const at = snapToFrame(playhead, project.canvas.frameRate);
    return placeParts(store, ids, mode === 'end' ? null : at, mode === 'end' ? 'free' : mode, null);
  };
  const usesOf = (id: string): { lane: Lane; clip: Clip }[] =>
    store
      .getState()
      .project.lanes.flatMap((lane) =>
        lane.clips.filter((c) => c.footageId === id).map((clip) => ({ lane, clip })),
      );
  const remove = async (view: FootageView) => {
    const isUsed = shownFootage(store.getState().project).has(view.id);
    if (isUsed && !store.getState().apply('lift-footage', { footageId: view.id })) return;
    const lifted = store.getState().history.done.at(-1);
    if (!(await change(view.id, { deleted: true }))) return;
    tell(`“${view.name}” was taken out of Footage.`, {
      label: 'Undo',
      run: () => {
        void change(view.id, { deleted: false });
        if (isUsed && store.getState().history.done.at(-1) === lifted) store.getState().undo();
      },
    });
  };
  const remedy = (view: FootageView, what: Remedy) => {
    const { apply } = store.getState();
    if (what.kind === 'look') apply('change-look', { footageId: view.id, change: what.look });
    else if (what.kind === 'size')
      apply('change-canvas', { change: { width: what.width, height: what.height } });
    else apply('change-canvas', { change: { frameRate: { ...what.frameRate } } });
  };
  /** How often it lies over recordings as a picture. */
  const picturesOf = (id: string): number =>
    store.getState().project.callouts.filter((c) => c.kind === 'picture' && c.footageId === id)
      .length;
  return { change, place, usesOf, picturesOf, remove, remedy };
}
