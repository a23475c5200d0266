'use client';
import type { KeyboardEvent, PointerEvent } from 'react';
import type { SpanList } from '@/core/project/span-lists';
import { frameDuration, ticksToSeconds, type Ticks } from '@/core/time/ticks';
import { useEditor, useEditorStore } from '../store';
import { Ends } from './Ends';
import { PLAIN_PX, toPixels } from './geometry';
import { pressItem, selectedItems } from './selecting';
import { useTimeDrag } from './use-time-drag';

interface Props {
  readonly list: SpanList;
  readonly span: { readonly id: string; readonly start: Ticks; readonly end: Ticks };
  readonly label: string;
  readonly color: string;
  readonly top?: number;
  readonly height: number;
  /** Only a frame: what it stands for is drawn elsewhere. */
  readonly bare?: boolean;
}

/**
 * Something with a start and an end on the timeline: dragged to move, by its ends to change its
 * length.
 */
export function SpanView({ list, span, label, color, top = 1, height, bare }: Props) {
  const store = useEditorStore();
  const scale = useEditor((s) => s.pixelsPerSecond);
  const selected = useEditor((s) => selectedItems(s).includes(span.id));
  const drag = useTimeDrag();
  const { id, start, end } = span;
  const width = Math.max(4, toPixels(end - start, scale));
  const least = () => frameDuration(store.getState().project.canvas.frameRate);
  const select = (event?: PointerEvent) =>
    pressItem(store, id, { ctrl: !!event && (event.ctrlKey || event.metaKey), shift: false });
  const move = (event: PointerEvent) => {
    const chosen = selectedItems(store.getState());
    if (chosen.length > 1 && chosen.includes(id))
      return drag(
        event,
        [start, end],
        chosen,
        (by) => ['move-things', { ids: chosen, by, lanes: null }],
        () => select(event),
      );
    drag(
      event,
      [start, end],
      [id],
      (delta) => {
        const from = Math.max(0, start + delta);
        return ['time-span', { id, start: from, end: from + end - start }];
      },
      () => select(event),
    );
  };
  const resize = (side: 'start' | 'end') => (event: PointerEvent) =>
    drag(
      event,
      [side === 'start' ? start : end],
      [id],
      (delta) => [
        'time-span',
        {
          id,
          start: side === 'start' ? start + delta : start,
          end: side === 'end' ? end + delta : end,
        },
      ],
      () => select(),
    );
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'Enter') select();
    if (!event.altKey || (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight')) return;
    event.preventDefault();
    const by = least() * (event.key === 'ArrowLeft' ? -1 : 1);
    const from = Math.max(0, start + by);
    store.getState().apply('time-span', { id, start: from, end: from + end - start }, true);
  };
  return (
    <div
      role="button"
      tabIndex={selected ? 0 : -1}
      aria-label={`${label}, ${ticksToSeconds(start).toFixed(1)} to ${ticksToSeconds(end).toFixed(1)} s`}
      aria-pressed={selected}
      data-span={list}
      data-item={id}
      onKeyDown={onKey}
      onPointerDown={move}
      className={`absolute cursor-grab overflow-hidden rounded-(--radius) text-[11px] leading-4 select-none ${selected ? 'z-10 touch-none outline-2 -outline-offset-2 outline-action' : ''} ${bare ? 'hover:bg-ink/5' : 'border border-l-[3px]'}`}
      style={{
        left: toPixels(start, scale),
        width,
        top,
        height,
        ...(bare
          ? {}
          : {
              borderColor: color,
              backgroundColor: `color-mix(in srgb, ${color} 18%, var(--sheet))`,
            }),
      }}
    >
      {width >= PLAIN_PX && (
        <>
          {!bare && <span className="block truncate px-1">{label}</span>}
          <Ends pull={resize} />
        </>
      )}
    </div>
  );
}
