'use client';
import { UNPOSED } from '@/core/callout/keyframes';
import { nanoid } from 'nanoid';
import { useState, type PointerEvent } from 'react';
import { drawnLine, penLook, type Pen, type PenPoint } from '@/core/callout/pen';
import type { PointInOutput } from '@/core/scale/rect';
import { sceneAt, screenIn } from '@/core/scene/scene';
import { secondsToTicks, type Ticks } from '@/core/time/ticks';
import { tellFault } from '../../shell/notices-store';
import { playheadOf, useEditor, useEditorStore, useTransport } from '../store';
import { followDrag } from './drag';

/** A line stays so long after it was drawn. */
const STAYS_SECONDS = 4;

interface Line {
  readonly at: readonly { readonly x: number; readonly y: number }[];
  readonly width: number;
  readonly color: string;
}

interface Session {
  readonly playhead: Ticks;
  readonly ms: number;
  readonly lines: readonly { readonly id: string; readonly line: Line }[];
}
const NOTHING: Session = { playhead: -1, ms: 0, lines: [] };

/**
 * Takes lines that are drawn on the Picture as callouts: each appears as it was drawn, one after the
 * other from the playhead on.
 */
export function PenDraw({ pen, scale }: { pen: Pen; scale: number }) {
  const store = useEditorStore();
  const [line, setLine] = useState<Line | null>(null);
  /** What was drawn at a place of the playhead, and how long it takes, in milliseconds. */
  const [session, setSession] = useState<Session>(NOTHING);
  const callouts = useEditor((s) => s.project.callouts);
  const here = useTransport(({ playhead }) => playhead === session.playhead);
  // They would not be seen before the playhead moves on; what was undone is gone.
  const before = here ? session.lines.filter(({ id }) => callouts.some((c) => c.id === id)) : [];
  const begin = (event: PointerEvent) => {
    if (event.button !== 0) return;
    const { project, sources, apply } = store.getState();
    const playhead = playheadOf(store.getState());
    const screen = screenIn(sceneAt(project, sources, playhead));
    if (!screen) return tellFault('There is no screen recording under the playhead to draw on.');
    const drawnHere = session.playhead === playhead ? session : { ...NOTHING, playhead };
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
      setLine(shown());
    };
    const shown = (): Line => ({
      ...{ at: [...at], color: look.color },
      width: look.width * screen.scale * scale,
    });
    add(0, 0, 0);
    followDrag(
      event,
      (dx, dy, { timeStamp }) => add(dx, dy, timeStamp - began),
      () => {
        setLine(null);
        const drawn = drawnLine(pen, points, screen.footage, project.canvas);
        if (!drawn) return;
        const id = nanoid();
        const start = playhead + secondsToTicks(drawnHere.ms / 1000);
        const ms = drawn.points.at(-1)![0];
        const end = start + secondsToTicks(ms / 1000 + STAYS_SECONDS);
        const anchor = { to: 'footage' as const, footageId: screen.footage.id };
        if (!apply('add-callout', { callout: { ...drawn, id, start, end, anchor, ...UNPOSED } }))
          return;
        const lines = [...drawnHere.lines, { id, line: shown() }];
        setSession({ playhead, ms: drawnHere.ms + ms, lines });
      },
    );
  };
  return (
    <div
      className="absolute inset-0 cursor-crosshair touch-none"
      onPointerDown={begin}
      data-testid="pen-draw"
    >
      <svg className="pointer-events-none absolute inset-0 size-full" aria-hidden>
        {[...before.map((drawn) => drawn.line), ...(line ? [line] : [])].map((one, i) => (
          <polyline
            key={i}
            points={one.at.map(({ x, y }) => `${x},${y}`).join(' ')}
            fill="none"
            stroke={one.color}
            strokeWidth={one.width}
            strokeOpacity={pen === 'marker' ? 0.4 : 1}
            strokeLinecap="round"
            strokeLinejoin="round"
          />
        ))}
      </svg>
    </div>
  );
}
