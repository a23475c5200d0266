'use client';
import { useLayoutEffect, useRef, type PointerEvent } from 'react';
import { useEditor, useEditorStore } from '../store';
import type { Ticks } from '@/core/time/ticks';
import { toPixels, toTime, type Sight } from './geometry';
import { useColors, type ColorName } from './use-colors';
import { pressItem, selectedItems } from './selecting';

interface Crumb {
  readonly id: string;
  readonly start: Ticks;
  readonly end: Ticks;
}

/**
 * What is too narrow to be worked on at this scale, all on one canvas: there may be thousands. A
 * press selects the one under it; a larger scale brings them out.
 */
export function Crumbs({
  crumbs,
  label,
  color,
  off,
  height,
  sight,
}: {
  /** By their starts. */
  crumbs: readonly Crumb[];
  label: string;
  color: ColorName;
  off: boolean;
  height: number;
  sight: Sight;
}) {
  const store = useEditorStore();
  const scale = useEditor((s) => s.pixelsPerSecond);
  const selected = useEditor((s) => selectedItems(s));
  const colors = useColors();
  const canvas = useRef<HTMLCanvasElement>(null);
  const from = Math.max(0, sight.from);
  const width = Math.max(1, sight.to - from);
  useLayoutEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    context.clearRect(0, 0, width, height);
    const chosen = new Set(selected);
    const fill = (style: string, alpha: number) => {
      context.fillStyle = style;
      context.globalAlpha = alpha;
    };
    // All grounds, then all edges: what is drawn in one look is drawn fast.
    const draw = (edge: boolean, list: readonly Crumb[]) => {
      for (const { start, end } of list) {
        const x = toPixels(start, scale) - from;
        const w = Math.max(1, toPixels(end, scale) - from - x);
        context.fillRect(x, 1, edge ? Math.min(1, w / 2) : w, height - 2);
      }
    };
    fill(colors(color), 0.4);
    draw(false, crumbs);
    fill(colors(color), 1);
    draw(true, crumbs);
    fill(colors('action'), 1);
    draw(
      false,
      crumbs.filter(({ id }) => chosen.has(id)),
    );
  }, [crumbs, height, scale, from, width, selected, color, colors]);
  const press = (event: PointerEvent<HTMLCanvasElement>) => {
    const x = event.clientX - event.currentTarget.getBoundingClientRect().left + from;
    const time = Math.max(0, toTime(x, scale));
    const found = crumbs.findLast(({ start, end }) => start <= time && time < end);
    // Between them it is the lane that was pressed: that spans a band, or moves the playhead.
    if (!found) return;
    event.stopPropagation();
    pressItem(store, found.id, { ctrl: event.ctrlKey || event.metaKey, shift: event.shiftKey });
  };
  return (
    <canvas
      ref={canvas}
      width={Math.ceil(width)}
      height={height}
      data-crumbs={crumbs.length}
      aria-label={`${label}; a larger scale shows them one by one`}
      role="img"
      className={`absolute top-0 ${off ? 'opacity-45' : ''}`}
      style={{ left: from, width, height }}
      onPointerDown={press}
    />
  );
}
