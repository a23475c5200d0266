'use client';
import type { PointerEvent } from 'react';
import type { Edit } from '@/core/edit/apply';
import type { Ticks } from '@/core/time/ticks';
import { followDrag } from '../picture/drag';
import { useEditorStore } from '../store';
import { toTime } from './geometry';
import { snapDelta, snapPoints } from './snap';

const REACH_PX = 8;

/** Drags in time with snapping; each move is an edit of the state at the drag's start. */
export function useTimeDrag() {
  const store = useEditorStore();
  return (
    event: PointerEvent,
    label: string,
    edges: readonly Ticks[],
    ids: readonly string[],
    edit: (delta: Ticks, pointer: globalThis.PointerEvent) => Edit,
    onPress?: () => void,
  ) => {
    const base = store.getState();
    const points = snapPoints(base.project, base.playhead, new Set(ids));
    followDrag(
      event,
      (dx, _dy, pointer) => {
        const { pixelsPerSecond, snapping, editFrom } = store.getState();
        const reach = snapping && !pointer.altKey ? toTime(REACH_PX, pixelsPerSecond) : -1;
        const delta = snapDelta(edges, toTime(dx, pixelsPerSecond), points, reach, base.project.canvas.frameRate);
        editFrom(base, label, edit(delta, pointer));
      },
      (moved) => {
        if (!moved) onPress?.();
      },
    );
  };
}
