'use client';
import { useState, type DragEvent } from 'react';
import { tell } from '../../shell/notices-store';
import { placeParts } from '../placing';
import { playheadOf, useEditorStore } from '../store';
import { toTime } from './geometry';
import { REACH_PX, snapDelta, snapPoints } from './snap';

export const FOOTAGE_DRAG = 'application/x-vistum-footage';

/**
 * Footage dragged onto a lane is placed where it is let go; with Shift room is made, with Alt it
 * lies over what is there.
 */
export function useFootageDrop() {
  const store = useEditorStore();
  const [ghost, setGhost] = useState<{ laneId: string; time: number } | null>(null);
  const timeOf = (event: DragEvent<HTMLElement>) => {
    const { project, pixelsPerSecond, snapping } = store.getState();
    const playhead = playheadOf(store.getState());
    const at = Math.max(
      0,
      toTime(event.clientX - event.currentTarget.getBoundingClientRect().left, pixelsPerSecond),
    );
    const reach = snapping ? toTime(REACH_PX, pixelsPerSecond) : -1;
    return Math.max(
      0,
      snapDelta([0], at, snapPoints(project, playhead, new Set()), reach, project.canvas.frameRate),
    );
  };
  const over = (laneId: string) => (event: DragEvent<HTMLElement>) => {
    if (!event.dataTransfer.types.includes(FOOTAGE_DRAG)) return;
    event.preventDefault();
    setGhost({ laneId, time: timeOf(event) });
  };
  const drop = (laneId: string) => (event: DragEvent<HTMLElement>) => {
    if (!event.dataTransfer.types.includes(FOOTAGE_DRAG)) return;
    event.preventDefault();
    event.stopPropagation();
    setGhost(null);
    const ids = JSON.parse(event.dataTransfer.getData(FOOTAGE_DRAG)) as string[];
    const mode = event.shiftKey ? 'insert' : event.altKey ? 'overwrite' : 'free';
    const done = placeParts(store, ids, timeOf(event), mode, laneId);
    if (!done && mode === 'free')
      tell('Hold Shift while letting go to make room, or Alt to lay it over what is there.');
  };
  return { ghost, over, drop, leave: () => setGhost(null) };
}
