'use client';
import { pressesIn } from '@/core/pointer/presses';
import type { PointerEvent } from 'react';
import type { EditCall } from '@/core/edit/registry';
import { secondsToTicks, snapToFrame, type Ticks } from '@/core/time/ticks';
import { followDrag } from '../picture/drag';
import { playheadOf, useEditorStore, useSession } from '../store';
import { toTime } from './geometry';
import { REACH_PX, snapDelta, snapPoints } from './snap';

/** Presses of the pointer are met within so much of where the drag began. */
const PRESSES_AROUND = secondsToTicks(90);

/** Drags in time with snapping; each move is an edit of the state at the drag's start. */
export function useTimeDrag() {
  const store = useEditorStore();
  const session = useSession();
  return (
    event: PointerEvent,
    edges: readonly Ticks[],
    ids: readonly string[],
    edit: (delta: Ticks, pointer: globalThis.PointerEvent) => EditCall,
    onPress?: () => void,
    /** The instant that is looked at for a distance, while it lasts. */
    lookAt?: (delta: Ticks) => Ticks,
  ) => {
    const base = store.getState();
    const but = new Set(ids);
    const rate = base.project.canvas.frameRate;
    const points = [
      ...snapPoints(base.project, playheadOf(base), but),
      // Presses lie between frames; what is cut lies on them.
      ...pressesIn(
        base.project,
        base.sources,
        Math.min(...edges) - PRESSES_AROUND,
        Math.max(...edges) + PRESSES_AROUND,
      )
        .filter(({ clip }) => !but.has(clip.id))
        .map(({ time }) => snapToFrame(time, rate)),
    ];
    const drag = base.drag();
    const before = playheadOf(base);
    followDrag(
      event,
      (dx, _dy, pointer) => {
        const { pixelsPerSecond, snapping } = store.getState();
        const reach = snapping && !pointer.altKey ? toTime(REACH_PX, pixelsPerSecond) : -1;
        const delta = snapDelta(edges, toTime(dx, pixelsPerSecond), points, reach, rate);
        drag.to(...edit(delta, pointer));
        if (lookAt) session.seek(lookAt(delta));
      },
      (moved) => {
        if (moved && lookAt) session.seek(before);
        if (moved) drag.end();
        else onPress?.();
      },
    );
  };
}
