'use client';
import type { KeyboardEvent } from 'react';
import { timelineTime } from '@/core/project/clip-time';
import type { Clip } from '@/core/project/model';
import { frameDuration, type Ticks } from '@/core/time/ticks';
import { takeArrow } from '../picture/arrows';
import { followDrag } from '../picture/drag';
import { useEditor, useEditorStore } from '../store';
import { toPixels, toTime } from './geometry';
import { LEVELS, pointsWithin, toLevel, toY } from './level-geometry';

/** An arrow changes a level by so much, with Shift by more. */
const STEP_DB = 0.5;
const LARGE_STEP_DB = 3;

const levelInWords = (dB: number): string => (dB <= -95 ? 'silent' : `${dB.toFixed(1)} dB`);

/**
 * The level points and the ends of the fades of the selected clip, to be pulled or moved by keys.
 * They lie over the clip and not in it: what is within a button can't be reached by itself.
 */
export function LevelPoints({
  clip,
  left,
  top,
  width,
  height,
}: {
  clip: Clip;
  left: number;
  top: number;
  width: number;
  height: number;
}) {
  const store = useEditorStore();
  const scale = useEditor((s) => s.pixelsPerSecond);
  const x = (time: Ticks) => toPixels(timelineTime(clip, time) - clip.start, scale);
  const fadeIn = toPixels(clip.fadeIn, scale);
  const fadeOut = toPixels(clip.fadeOut, scale);
  const dragPoint = (index: number) => (event: React.PointerEvent) => {
    const drag = store.getState().drag();
    const point = clip.envelope[index]!;
    followDrag(event, (dx, dy) => {
      const time = timelineTime(clip, point[0]) + toTime(dx, scale);
      const dB = toLevel(toY(point[1], height) + dy, height);
      drag.to('move-level-point', {
        clipId: clip.id,
        index,
        time: Math.round(time),
        level: dB,
      });
    });
  };
  const pointKey = (index: number) => (event: KeyboardEvent) => {
    const { apply, project } = store.getState();
    const clipId = clip.id;
    const [at, level] = clip.envelope[index]!;
    if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault();
      event.stopPropagation();
      return apply('remove-level-point', { clipId, index });
    }
    const way = takeArrow(event);
    if (!way) return;
    const time = timelineTime(clip, at) + way[0] * frameDuration(project.canvas.frameRate);
    const step = event.shiftKey ? LARGE_STEP_DB : STEP_DB;
    const to = Math.max(LEVELS.bottom, Math.min(LEVELS.top, level - way[1] * step));
    apply('move-level-point', { clipId, index, time: Math.round(time), level: to }, true);
  };
  const dragFade = (side: 'in' | 'out') => (event: React.PointerEvent) => {
    const drag = store.getState().drag();
    followDrag(event, (dx) => {
      const by = toTime(side === 'in' ? dx : -dx, scale);
      drag.to('set-fades', {
        clipId: clip.id,
        fadeIn: clip.fadeIn + (side === 'in' ? by : 0),
        fadeOut: clip.fadeOut + (side === 'out' ? by : 0),
      });
    });
  };
  return (
    <div className="pointer-events-none absolute z-20" style={{ left, top, width, height }}>
      {pointsWithin(clip).map(({ time, dB, index }) => (
        <span
          key={index}
          data-level-point
          role="slider"
          tabIndex={0}
          aria-label="Level point: arrows move it, Delete removes it"
          aria-orientation="vertical"
          aria-valuemin={LEVELS.bottom}
          aria-valuemax={LEVELS.top}
          aria-valuenow={dB}
          aria-valuetext={levelInWords(dB)}
          title={`${levelInWords(dB)}; double press to remove`}
          className="group pointer-events-auto touch-none absolute grid size-6 -translate-x-1/2 -translate-y-1/2 cursor-move place-items-center"
          style={{ left: x(time), top: toY(dB, height) }}
          onKeyDown={pointKey(index)}
          onPointerDown={dragPoint(index)}
          onDoubleClick={(event) => {
            event.stopPropagation();
            store.getState().apply('remove-level-point', { clipId: clip.id, index });
          }}
        >
          <span className="size-2.5 rounded-full border border-sheet bg-ink" />
          <span className="numbers pointer-events-none absolute left-full hidden bg-sheet px-0.5 text-[10px] leading-3 whitespace-nowrap group-hover:block group-focus:block group-active:block">
            {levelInWords(dB)}
          </span>
        </span>
      ))}
      {(['in', 'out'] as const).map((side) => (
        <span
          key={side}
          data-fade={side}
          title={side === 'in' ? 'Fade in: pull to the right' : 'Fade out: pull to the left'}
          className="pointer-events-auto touch-none absolute top-0 size-2.5 pointer-coarse:size-4 cursor-ew-resize border border-sheet bg-action"
          style={side === 'in' ? { left: Math.max(6, fadeIn) } : { right: Math.max(6, fadeOut) }}
          onPointerDown={dragFade(side)}
        />
      ))}
    </div>
  );
}
