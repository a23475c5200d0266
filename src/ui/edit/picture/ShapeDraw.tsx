'use client';
import { useState, type PointerEvent } from 'react';
import type { NewShape } from '@/core/callout/draw';
import type { PointInOutput } from '@/core/scale/rect';
import { sceneAt, screenIn } from '@/core/scene/scene';
import { snapToFrame } from '@/core/time/ticks';
import { tellFault } from '../../shell/notices-store';
import { addCallout, drawnCallout, newCallout } from '../new-callout';
import { playheadOf, useEditorStore } from '../store';
import { followDrag } from './drag';
import { useSeek } from './use-player';

/** A shorter way is a press, in CSS pixels: what is made then is as large as usual. */
const LEAST = 6;

interface Line {
  readonly from: { readonly x: number; readonly y: number };
  readonly to: { readonly x: number; readonly y: number };
}

/** Takes what is drawn on the Picture as a new callout: from where it was pressed to where it ends. */
export function ShapeDraw({ shape, scale }: { shape: NewShape; scale: number }) {
  const store = useEditorStore();
  const seek = useSeek();
  const [line, setLine] = useState<Line | null>(null);
  const begin = (event: PointerEvent) => {
    if (event.button !== 0) return;
    const state = store.getState();
    const { project, sources } = state;
    const playhead = playheadOf(state);
    const screen = screenIn(sceneAt(project, sources, playhead));
    if (!screen) return tellFault('There is no screen recording under the playhead to draw on.');
    const box = event.currentTarget.getBoundingClientRect();
    const from = { x: event.clientX - box.left, y: event.clientY - box.top };
    const inFootage = ({ x, y }: Line['to']) =>
      screen.toFootage({ x: x / scale, y: y / scale } as PointInOutput);
    let to = from;
    followDrag(
      event,
      (dx, dy) => {
        to = { x: from.x + dx, y: from.y + dy };
        setLine({ from, to });
      },
      () => {
        setLine(null);
        state.set({ drawing: null });
        const start = snapToFrame(playhead, project.canvas.frameRate);
        const made = newCallout(state, screen, shape, inFootage(from), start);
        if (!made) return;
        const isPress = Math.hypot(to.x - from.x, to.y - from.y) < LEAST;
        const drawn = isPress
          ? made
          : drawnCallout(state, screen, made, inFootage(from), inFootage(to));
        addCallout(state, drawn, seek);
      },
    );
  };
  return (
    <div
      className="absolute inset-0 cursor-crosshair touch-none"
      onPointerDown={begin}
      data-testid="shape-draw"
    >
      {line && <Rubber line={line} straight={'kind' in shape && STRAIGHT.includes(shape.kind)} />}
    </div>
  );
}

/** These are drawn as a line, all else as a rectangle. */
const STRAIGHT: readonly string[] = ['arrow', 'line', 'text', 'note', 'count', 'keycaps'];

/** What is being drawn. */
function Rubber({ line: { from, to }, straight }: { line: Line; straight: boolean }) {
  return (
    <svg className="pointer-events-none absolute inset-0 size-full" aria-hidden>
      <g className="fill-none stroke-playhead" strokeWidth={2} strokeDasharray="6 4">
        {straight ? (
          <line x1={from.x} y1={from.y} x2={to.x} y2={to.y} />
        ) : (
          <rect
            x={Math.min(from.x, to.x)}
            y={Math.min(from.y, to.y)}
            width={Math.abs(to.x - from.x)}
            height={Math.abs(to.y - from.y)}
          />
        )}
      </g>
    </svg>
  );
}
