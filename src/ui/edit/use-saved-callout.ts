import { nanoid } from 'nanoid';
import { savedCalloutAt, type SavedCallout } from '@/core/callout/saved';
import { footageOf } from '@/core/project/sources';
import { frontmost } from '@/core/scene/scene';
import { snapToFrame } from '@/core/time/ticks';
import { tellFault } from '../shell/notices-store';
import { addCallout } from './new-callout';
import { useSeek } from './picture/use-player';
import { playheadOf, useEditorStore } from './store';

/** Adds a callout that was saved, at the playhead. */
export function useSavedCallout(): (saved: SavedCallout) => void {
  const store = useEditorStore();
  const seek = useSeek();
  return (saved) => {
    const state = store.getState();
    const { project, sources } = state;
    const time = playheadOf(state);
    const callout = savedCalloutAt(saved, {
      ...{ id: nanoid(), start: snapToFrame(time, project.canvas.frameRate) },
      ...{
        frame: project.canvas,
        footage: frontmost({ project, sources, time }, 'screen')?.footage ?? null,
      },
    });
    if (!callout)
      return tellFault('There is no screen recording under the playhead for it to stand on.');
    if (callout.kind === 'picture' && !footageOf(sources, callout.footageId))
      return tellFault('Its picture is not in this project. Add it to Footage and put it in anew.');
    addCallout(state, callout, seek);
  };
}
