'use client';
import { useState, type DragEvent } from 'react';
import { tell } from '../../shell/notices-store';
import { placeParts } from '../placing';
import { playheadOf, useEditorStore } from '../store';
import { HEADER_WIDTH, toTime } from './geometry';
import { REACH_PX, snapDelta, snapPoints } from './snap';

export const FOOTAGE_DRAG = 'application/x-vistum-footage';

/** Where footage would be placed: on a lane, or on those of its role. */
export interface DropPlace {
  readonly laneId: string | null;
  readonly time: number;
}

/**
 * Footage dragged anywhere onto the timeline is placed where it is let go: on the lane there if it
 * can carry it, else on the lanes of its role. With Shift room is made, with Alt it lies over what
 * is there.
 */
export function useFootageDrop() {
  const store = useEditorStore();
  const [ghost, setGhost] = useState<DropPlace | null>(null);
  const placeOf = (event: DragEvent<HTMLElement>): DropPlace => {
    const { project, pixelsPerSecond, snapping } = store.getState();
    const playhead = playheadOf(store.getState());
    const { currentTarget: scroller, target, clientX } = event;
    const x = clientX - scroller.getBoundingClientRect().left - HEADER_WIDTH + scroller.scrollLeft;
    const at = Math.max(0, toTime(x, pixelsPerSecond));
    const reach = snapping ? toTime(REACH_PX, pixelsPerSecond) : -1;
    const points = snapPoints(project, playhead, new Set());
    const row = (target as Element).closest<HTMLElement>('[data-lane]');
    return {
      laneId: row?.dataset.lane ?? null,
      time: Math.max(0, snapDelta([0], at, points, reach, project.canvas.frameRate)),
    };
  };
  const onDragOver = (event: DragEvent<HTMLElement>) => {
    if (!event.dataTransfer.types.includes(FOOTAGE_DRAG)) return;
    event.preventDefault();
    setGhost(placeOf(event));
  };
  const onDrop = (event: DragEvent<HTMLElement>) => {
    if (!event.dataTransfer.types.includes(FOOTAGE_DRAG)) return;
    event.preventDefault();
    event.stopPropagation();
    setGhost(null);
    const ids = JSON.parse(event.dataTransfer.getData(FOOTAGE_DRAG)) as string[];
    const mode = event.shiftKey ? 'insert' : event.altKey ? 'overwrite' : 'free';
    const { laneId, time } = placeOf(event);
    const done = placeParts(store, ids, time, mode, laneId);
    if (!done && mode === 'free')
      tell('Hold Shift while letting go to make room, or Alt to lay it over what is there.');
  };
  const onDragLeave = ({ currentTarget, relatedTarget }: DragEvent<HTMLElement>) => {
    if (!currentTarget.contains(relatedTarget as Node | null)) setGhost(null);
  };
  return { ghost, handlers: { onDragOver, onDrop, onDragLeave } };
}
