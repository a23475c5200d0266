'use client';
import type { CSSProperties, KeyboardEvent, PointerEvent } from 'react';
import { magnified } from '@/core/framing/by-hand';
import type { Framing } from '@/core/project/model';
import { frameDuration, ticksToSeconds } from '@/core/time/ticks';
import { followDrag } from '../picture/drag';
import { useEditor, useEditorStore } from '../store';
import { useWhole } from '../use-whole';
import { toPixels, toTime } from './geometry';

/** Narrower framings have no room for grips that can be hit. */
const LEAST_PX = 48;
/** An arrow changes the magnification by so much. */
const STEP = 0.05;

/**
 * Grips on the graph for the selected framing: its line is drawn up and down for the magnification,
 * the corners sideways for the ramps.
 */
export function FramingGrips({
  toY,
  toZoom,
}: {
  /** From a magnification to pixels of the graph, and back. */
  toY: (zoom: number) => number;
  toZoom: (y: number) => number;
}) {
  const store = useEditorStore();
  const scale = useEditor((s) => s.pixelsPerSecond);
  const rate = useEditor((s) => s.project.canvas.frameRate);
  const framing = useEditor((s) =>
    s.selection?.kind === 'framings'
      ? s.project.framings.find((f) => f.id === (s.selection as { id: string }).id)
      : undefined,
  );
  const whole = useWhole(framing?.footageId);
  if (!framing || !whole) return null;
  const { id, start, end, rampIn, rampOut, rect } = framing;
  if (toPixels(end - start, scale) < LEAST_PX) return null;
  const zoom = whole.width / rect.width;
  const y = toY(zoom);
  const left = toPixels(start + rampIn, scale);
  const right = toPixels(end - rampOut, scale);
  const magnify = (to: number): Partial<Framing> => ({
    rect: { ...magnified(rect, whole, to) },
    pinned: true,
  });
  const ramp = (side: 'rampIn' | 'rampOut', ticks: number): Partial<Framing> => ({
    [side]: Math.max(0, Math.min(ticks, end - start - (side === 'rampIn' ? rampOut : rampIn))),
  });
  const drag = (event: PointerEvent, change: (dx: number, dy: number) => Partial<Framing>) => {
    const under = store.getState().drag();
    // The graph may take another scale meanwhile; the drag keeps to the one it began with.
    followDrag(event, (dx, dy) => under.to('change-framing', { id, change: change(dx, dy) }));
  };
  const byKey = (event: KeyboardEvent, up: string, down: string, change: (by: 1 | -1) => void) => {
    if (event.key !== up && event.key !== down) return;
    event.preventDefault();
    event.stopPropagation();
    change(event.key === up ? 1 : -1);
  };
  const apply = (change: Partial<Framing>) =>
    store.getState().apply('change-framing', { id, change }, true);
  const rampGrip = (side: 'rampIn' | 'rampOut', label: string, style: CSSProperties) => {
    const sign = side === 'rampIn' ? 1 : -1;
    const now = framing[side];
    return (
      <span
        role="slider"
        tabIndex={0}
        aria-label={label}
        aria-valuenow={Number(ticksToSeconds(now).toFixed(2))}
        aria-valuemin={0}
        aria-valuemax={Number(ticksToSeconds(end - start).toFixed(2))}
        aria-valuetext={`${ticksToSeconds(now).toFixed(2)} s`}
        title={`${label}: drag sideways`}
        data-testid={`grip-${side}`}
        className="absolute z-20 flex touch-none size-6 -translate-1/2 cursor-ew-resize items-center justify-center"
        style={style}
        onPointerDown={(event) => drag(event, (dx) => ramp(side, now + sign * toTime(dx, scale)))}
        onKeyDown={(event) =>
          byKey(event, 'ArrowRight', 'ArrowLeft', (by) =>
            apply(ramp(side, now + sign * by * frameDuration(rate))),
          )
        }
      >
        <span className="size-3 border-2 border-ink bg-sheet" />
      </span>
    );
  };
  return (
    <>
      <span
        role="slider"
        tabIndex={0}
        aria-orientation="vertical"
        aria-label="Magnification of the framing"
        aria-valuenow={Number(zoom.toFixed(2))}
        aria-valuemin={1}
        aria-valuemax={8}
        aria-valuetext={`${zoom.toFixed(2)}×`}
        title="Magnification: drag up or down"
        data-testid="grip-magnification"
        className="absolute z-10 flex touch-none h-6 -translate-y-1/2 cursor-ns-resize items-center"
        style={{ left, width: Math.max(24, right - left), top: y }}
        onPointerDown={(event) => drag(event, (_dx, dy) => magnify(toZoom(y + dy)))}
        onKeyDown={(event) =>
          byKey(event, 'ArrowUp', 'ArrowDown', (by) => apply(magnify(zoom + by * STEP)))
        }
      >
        <span className="h-2 w-full bg-action/25" />
      </span>
      {rampGrip('rampIn', 'Ramp in', { left, top: y })}
      {rampGrip('rampOut', 'Ramp out', { left: Math.max(left, right), top: y })}
    </>
  );
}
