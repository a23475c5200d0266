'use client';
import { useEffect, useRef } from 'react';
import { clipEnd } from '@/core/project/clip-time';
import type { Lane } from '@/core/project/model';
import { clipAt } from '@/core/project/query';
import { useEditor, useEditorStore } from '../store';
import { toPixels, toTime, type Sight } from './geometry';
import { pressItem, selectedItems } from './selecting';
import type { Piece } from './visible';

/**
 * The clips of a lane that are too narrow to be worked on at this scale, all on one canvas: there
 * may be thousands. A press selects the one under it; a larger scale brings them out.
 */
export function Crumbs({
  lane,
  pieces,
  height,
  sight,
}: {
  lane: Lane;
  pieces: readonly Piece[];
  height: number;
  sight: Sight;
}) {
  const store = useEditorStore();
  const scale = useEditor((s) => s.pixelsPerSecond);
  const selected = useEditor((s) => selectedItems(s));
  const canvas = useRef<HTMLCanvasElement>(null);
  const from = Math.max(0, sight.from);
  const width = Math.max(1, sight.to - from);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    context.clearRect(0, 0, width, height);
    const chosen = new Set(selected);
    const { color, outlineColor } = getComputedStyle(canvas.current!);
    for (const piece of pieces) {
      if (piece.kind !== 'crumbs') continue;
      for (let i = piece.first; i <= piece.last; i++) {
        const clip = lane.clips[i]!;
        const x = toPixels(clip.start, scale) - from;
        const w = Math.max(1, toPixels(clipEnd(clip), scale) - from - x);
        context.fillStyle = chosen.has(clip.id) ? outlineColor : color;
        context.globalAlpha = chosen.has(clip.id) ? 1 : 0.4;
        context.fillRect(x, 1, w, height - 2);
        context.globalAlpha = 1;
        context.fillRect(x, 1, Math.min(1, w / 2), height - 2);
      }
    }
  }, [lane, pieces, height, scale, from, width, selected]);
  return (
    <canvas
      ref={canvas}
      width={Math.ceil(width)}
      height={height}
      data-crumbs={pieces.length}
      aria-label={`Short clips on ${lane.name}; a larger scale shows them one by one`}
      role="img"
      className={`absolute top-0 outline-action ${lane.off ? 'opacity-45' : ''}`}
      style={{ left: from, width, height, color: `var(--lane-${lane.kind})` }}
      onPointerDown={(event) => {
        const x = event.clientX - event.currentTarget.getBoundingClientRect().left + from;
        const clip = clipAt(lane, Math.max(0, toTime(x, scale)));
        // Between clips it is the lane that was pressed: that spans a band, or moves the playhead.
        if (!clip) return;
        event.stopPropagation();
        pressItem(store, clip.id, { ctrl: event.ctrlKey || event.metaKey, shift: event.shiftKey });
      }}
    />
  );
}
