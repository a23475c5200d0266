'use client';
import { useState, type PointerEvent as ReactPointerEvent } from 'react';
import { SPAN_LISTS, type SpanList } from '@/core/project/span-lists';
import { clipEnd } from '@/core/project/clip-time';
import type { Ticks } from '@/core/time/ticks';
import { followDrag } from '../picture/drag';
import type { EditorState } from '../session/state';
import { useEditorStore } from '../store';
import { toTime } from './geometry';
import { selectedItems, selectItems } from './selecting';

export interface Band {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** Ids of what lies in a stretch of time on rows that are touched. */
function itemsIn(
  state: EditorState,
  rows: readonly HTMLElement[],
  from: Ticks,
  to: Ticks,
): string[] {
  const ids: string[] = [];
  for (const row of rows) {
    const lane = state.project.lanes.find((l) => l.id === row.dataset.lane);
    if (lane && !lane.locked)
      for (const clip of lane.clips) if (clip.start < to && clipEnd(clip) > from) ids.push(clip.id);
    const list = row.dataset.list as SpanList | undefined;
    if (list && SPAN_LISTS.includes(list))
      for (const span of state.project[list])
        if (span.start < to && span.end > from) ids.push(span.id);
  }
  return ids;
}

/**
 * Pressing on an empty place of the timeline and dragging spans a rubber band: what it touches is
 * selected, with Ctrl in addition. A press without a drag is handed on.
 */
export function useRubberBand(
  scroller: React.RefObject<HTMLDivElement | null>,
  onPress: (event: ReactPointerEvent) => void,
) {
  const store = useEditorStore();
  const [band, setBand] = useState<Band | null>(null);
  const begin = (event: ReactPointerEvent) => {
    const onEmpty =
      event.target === event.currentTarget ||
      (event.target as HTMLElement).dataset.crumbs !== undefined;
    if (!onEmpty || event.button !== 0) return;
    const element = scroller.current!;
    const box = element.getBoundingClientRect();
    const row = event.currentTarget.getBoundingClientRect();
    const from = { x: event.clientX, y: event.clientY };
    const kept = event.ctrlKey || event.metaKey ? selectedItems(store.getState()) : [];
    const pressed = {
      ...event,
      currentTarget: event.currentTarget,
      clientX: event.clientX,
    } as ReactPointerEvent;
    followDrag(
      event,
      (_dx, _dy, pointer) => {
        const left = Math.min(from.x, pointer.clientX);
        const right = Math.max(from.x, pointer.clientX);
        const top = Math.min(from.y, pointer.clientY);
        const bottom = Math.max(from.y, pointer.clientY);
        setBand({
          left: left - box.left + element.scrollLeft,
          top: top - box.top + element.scrollTop,
          width: right - left,
          height: bottom - top,
        });
        const { pixelsPerSecond } = store.getState();
        const rows = [...element.querySelectorAll<HTMLElement>('[data-lane], [data-list]')].filter(
          (r) => {
            const b = r.getBoundingClientRect();
            return b.top < bottom && b.bottom > top;
          },
        );
        const ids = itemsIn(
          store.getState(),
          rows,
          toTime(left - row.left, pixelsPerSecond),
          toTime(right - row.left, pixelsPerSecond),
        );
        selectItems(store, [...new Set([...kept, ...ids])]);
      },
      (moved) => {
        setBand(null);
        if (!moved) onPress(pressed);
      },
    );
  };
  return { band, begin };
}
