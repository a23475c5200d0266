'use client';
import { useEffect, type PointerEvent } from 'react';
import { keepInside } from '@/core/framing/path';
import type { FootageRect } from '@/core/project/model';
import { areaOf } from '@/core/project/query';
import { magnification, wholeView } from '@/core/scale/sharpness';
import { useFramingLimit } from '../use-framing-limit';
import { useEditor, useEditorStore, useTransport } from '../store';
import { followDrag } from './drag';

const CLOSEST = 8;

/** The view rectangle of the selected framing, to be moved and sized on the whole screen. */
export function FramingHandles({ id, scale }: { id: string; scale: number }) {
  const store = useEditorStore();
  const framing = useEditor((s) => s.project.framings.find((f) => f.id === id));
  const canvas = useEditor((s) => s.project.canvas);
  const area = useEditor((s) =>
    framing && s.sources.footage[framing.footageId]
      ? areaOf(s.project, s.sources.footage[framing.footageId]!)
      : null,
  );
  const limit = useFramingLimit(framing);
  const playing = useTransport((t) => t.rate !== 0);
  useEffect(() => {
    store.setState({ view: playing ? {} : { whole: true } });
    return () => store.setState({ view: {} });
  }, [store, playing]);
  if (!framing || !area || playing) return null;
  const whole = wholeView(area, canvas);
  const ratio = (canvas.width * scale) / whole.width;
  const place = (rect: FootageRect) => ({
    left: (rect.x - whole.x) * ratio,
    top: (rect.y - whole.y) * ratio,
    width: rect.width * ratio,
    height: rect.height * ratio,
  });
  const soft = magnification(framing.rect, area, canvas) > limit * 1.01;

  const drag = (
    event: PointerEvent,
    change: (rect: FootageRect, dx: number, dy: number) => FootageRect,
  ) => {
    const under = store.getState().drag();
    followDrag(event, (dx, dy) => {
      const rect = keepInside(change(framing.rect, dx / ratio, dy / ratio), whole);
      under.to('change-framing', { id, change: { rect: { ...rect }, pinned: true } });
    });
  };
  const resize = (sx: 1 | -1, sy: 1 | -1) => (event: PointerEvent) =>
    drag(event, (rect, dx, dy) => {
      const wanted = rect.width + Math.max(sx * dx, (sy * dy * whole.width) / whole.height);
      const width = Math.min(whole.width, Math.max(whole.width / CLOSEST, wanted));
      const height = (width * whole.height) / whole.width;
      return {
        width,
        height,
        x: sx > 0 ? rect.x : rect.x + rect.width - width,
        y: sy > 0 ? rect.y : rect.y + rect.height - height,
      };
    });
  const corner = (sx: 1 | -1, sy: 1 | -1, style: string) => (
    <span
      onPointerDown={resize(sx, sy)}
      className={`absolute size-3 border-2 border-ink bg-sheet ${style}`}
      data-testid={`framing-corner-${sx}-${sy}`}
    />
  );
  return (
    <div
      className={`absolute cursor-move border-2 ${soft ? 'border-caution' : 'border-playhead'}`}
      style={{ ...place(framing.rect), boxShadow: '0 0 0 9999px rgb(0 0 0 / 0.35)' }}
      onPointerDown={(e) =>
        drag(e, (rect, dx, dy) => ({ ...rect, x: rect.x + dx, y: rect.y + dy }))
      }
      data-testid="framing-rect"
    >
      <span className="numbers absolute top-0 left-4 bg-sheet px-1 text-xs">
        {magnification(framing.rect, area, canvas).toFixed(2)}× {soft ? 'soft' : 'sharp'}
      </span>
      {corner(-1, -1, 'top-0 left-0 cursor-nwse-resize')}
      {corner(1, -1, 'top-0 right-0 cursor-nesw-resize')}
      {corner(-1, 1, 'bottom-0 left-0 cursor-nesw-resize')}
      {corner(1, 1, 'right-0 bottom-0 cursor-nwse-resize')}
    </div>
  );
}
