'use client';
import type { KeyboardEvent } from 'react';
import { envelopeAt } from '@/core/audio/envelope';
import { clipEnd, sourceTime, timelineTime } from '@/core/project/clip-time';
import type { Clip } from '@/core/project/model';
import { frameDuration, type Ticks } from '@/core/time/ticks';
import { useEditor, useEditorStore } from '../store';
import { takeArrow } from '../picture/arrows';
import { followDrag } from '../picture/drag';
import { toPixels, toTime } from './geometry';

/** The line's range: 0 dB lies a third from the top. */
const TOP_DB = 12;
const BOTTOM_DB = -36;
const REACH_PX = 6;
/** An arrow changes a level by so much, with Shift by more. */
const STEP_DB = 0.5;
const LARGE_STEP_DB = 3;

const levelInWords = (dB: number): string => (dB <= -95 ? 'silent' : `${dB.toFixed(1)} dB`);

const toY = (dB: number, height: number) =>
  ((TOP_DB - Math.min(TOP_DB, Math.max(BOTTOM_DB, dB))) / (TOP_DB - BOTTOM_DB)) * height;
/** At the foot of the clip the sound is gone. */
const toLevel = (y: number, height: number) =>
  y >= height ? -96 : TOP_DB - (y / height) * (TOP_DB - BOTTOM_DB);

/**
 * The level along a clip with its points, and its fades: a double press adds or removes a point,
 * the corners pull the fades.
 */
export function LevelLine({
  clip,
  width,
  height,
  selected,
  locked,
}: {
  clip: Clip;
  width: number;
  height: number;
  selected: boolean;
  locked: boolean;
}) {
  const store = useEditorStore();
  const scale = useEditor((s) => s.pixelsPerSecond);
  const x = (time: Ticks) => toPixels(timelineTime(clip, time) - clip.start, scale);
  const from = sourceTime(clip, clip.start);
  const to = sourceTime(clip, clipEnd(clip));
  const inside = clip.speed
    ? clip.envelope
        .map(([time, dB], index) => ({ time, dB, index }))
        .filter((p) => p.time >= from && p.time <= to)
    : [];
  const line = clip.speed
    ? [
        [0, envelopeAt(clip.envelope, from)] as const,
        ...inside.map((p) => [x(p.time), p.dB] as const),
        [width, envelopeAt(clip.envelope, to)] as const,
      ]
        .map(([px, dB]) => `${px.toFixed(1)},${toY(dB, height).toFixed(1)}`)
        .join(' ')
    : '';
  const fadeIn = toPixels(clip.fadeIn, scale);
  const fadeOut = toPixels(clip.fadeOut, scale);
  const add = (event: React.MouseEvent<Element>) => {
    if (locked) return;
    const box = (event.currentTarget as Element).getBoundingClientRect();
    const time = clip.start + toTime(event.clientX - box.left, scale);
    const dB = toLevel(event.clientY - box.top, height);
    store.getState().apply('set-level-point', {
      clipId: clip.id,
      time,
      level: dB,
      reach: toTime(REACH_PX, scale),
    });
    event.stopPropagation();
  };
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
    const to = Math.max(BOTTOM_DB, Math.min(TOP_DB, level - way[1] * step));
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
  const show = selected || clip.envelope.length > 0 || clip.fadeIn > 0 || clip.fadeOut > 0;
  if (!show) return null;
  return (
    <>
      <svg
        className="absolute inset-0"
        width={width}
        height={height}
        onDoubleClick={add}
        aria-hidden
      >
        {fadeIn > 0 && (
          <polygon points={`0,0 ${fadeIn},0 0,${height}`} fill="var(--sheet)" opacity={0.75} />
        )}
        {fadeOut > 0 && (
          <polygon
            points={`${width},0 ${width - fadeOut},0 ${width},${height}`}
            fill="var(--sheet)"
            opacity={0.75}
          />
        )}
        <polyline points={line} fill="none" stroke="var(--ink)" strokeWidth={1.25} />
      </svg>
      {selected &&
        !locked &&
        inside.map(({ time, dB, index }) => (
          <span
            key={index}
            data-level-point
            role="slider"
            tabIndex={0}
            aria-label="Level point: arrows move it, Delete removes it"
            aria-orientation="vertical"
            aria-valuemin={BOTTOM_DB}
            aria-valuemax={TOP_DB}
            aria-valuenow={dB}
            aria-valuetext={levelInWords(dB)}
            title={`${levelInWords(dB)}; double press to remove`}
            className="group absolute grid size-6 -translate-x-1/2 -translate-y-1/2 cursor-move place-items-center"
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
      {selected &&
        !locked &&
        (['in', 'out'] as const).map((side) => (
          <span
            key={side}
            data-fade={side}
            title={side === 'in' ? 'Fade in: pull to the right' : 'Fade out: pull to the left'}
            className="absolute top-0 size-2.5 cursor-ew-resize border border-sheet bg-action"
            style={side === 'in' ? { left: Math.max(6, fadeIn) } : { right: Math.max(6, fadeOut) }}
            onPointerDown={dragFade(side)}
          />
        ))}
    </>
  );
}
