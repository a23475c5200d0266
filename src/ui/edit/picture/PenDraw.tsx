'use client';
import { nanoid } from 'nanoid';
import { useRef, useState, type PointerEvent } from 'react';
import { drawnLine, penLook, type Pen, type PenPoint } from '@/core/callout/pen';
import type { PointInOutput } from '@/core/scale/rect';
import { sceneAt, screenIn } from '@/core/scene/scene';
import { secondsToTicks } from '@/core/time/ticks';
import { tellFault } from '../../shell/notices-store';
import { playheadOf, useEditorStore } from '../store';
import { followDrag } from './drag';

/** A line stays so long after it was drawn. */
const STAYS_SECONDS = 4;

interface Line {
  readonly at: readonly { readonly x: number; readonly y: number }[];
  readonly width: number;
  readonly color: string;
}

/**
 * Takes lines that are drawn on the Picture as callouts: each appears as it was drawn, one after the
 * other from the playhead on.
 */
export function PenDraw({ pen, scale }: { pen: Pen; scale: number }) {
  const store = useEditorStore();
  const [line, setLine] = useState<Line | null>(null);
  /** Where the playhead was, and how long what was drawn there since takes, in milliseconds. */
  const session = useRef({ playhead: -1, ms: 0 });
  const begin = (event: PointerEvent) => {
    const { project, sources, apply } = store.getState();
    const playhead = playheadOf(store.getState());
    const screen = screenIn(sceneAt(project, sources, playhead));
    if (!screen) return tellFault('There is no screen recording under the playhead to draw on.');
    if (session.current.playhead !== playhead) session.current = { playhead, ms: 0 };
    const box = event.currentTarget.getBoundingClientRect();
    const from = { x: event.clientX - box.left, y: event.clientY - box.top };
    const began = event.timeStamp;
    const look = penLook(pen, screen.footage, project.canvas);
    const at: { x: number; y: number }[] = [];
    const points: PenPoint[] = [];
    const add = (dx: number, dy: number, ms: number) => {
      const place = { x: from.x + dx, y: from.y + dy };
      const { x, y } = screen.toFootage({
        x: place.x / scale,
        y: place.y / scale,
      } as PointInOutput);
      at.push(place);
      points.push([ms, x, y]);
      setLine({ at: [...at], width: look.width * screen.scale * scale, color: look.color });
    };
    add(0, 0, 0);
    followDrag(
      event,
      (dx, dy, { timeStamp }) => add(dx, dy, timeStamp - began),
      () => {
        setLine(null);
        const drawn = drawnLine(pen, points, screen.footage, project.canvas);
        if (!drawn) return;
        const start = playhead + secondsToTicks(session.current.ms / 1000);
        const ms = drawn.points.at(-1)![0];
        const end = start + secondsToTicks(ms / 1000 + STAYS_SECONDS);
        const anchor = { to: 'footage' as const, footageId: screen.footage.id };
        if (apply('add-callout', { callout: { ...drawn, id: nanoid(), start, end, anchor } }))
          session.current.ms += ms;
      },
    );
  };
  return (
    <div
      className="absolute inset-0 cursor-crosshair touch-none"
      onPointerDown={begin}
      data-testid="pen-draw"
    >
      {line && (
        <svg className="pointer-events-none absolute inset-0 size-full" aria-hidden>
          <polyline
            points={line.at.map(({ x, y }) => `${x},${y}`).join(' ')}
            fill="none"
            stroke={line.color}
            strokeWidth={line.width}
            strokeOpacity={pen === 'marker' ? 0.4 : 1}
            strokeLinecap="round"
            strokeLinejoin="round"
          />
        </svg>
      )}
    </div>
  );
}
