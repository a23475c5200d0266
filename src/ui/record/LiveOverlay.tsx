'use client';
import { nanoid } from 'nanoid';
import { useEffect, useRef, useState, type PointerEvent, type WheelEvent } from 'react';
import type { PracticeScreen } from '@/capture/practice/screen';
import { LIVE_LETTERS, LIVE_WIDTHS, MARKER_FACTOR } from '@/core/take/palette';
import { drawnAt, drawnMarks, type Drawn } from '@/core/take/drawn';
import { useEditor } from '../edit/store';
import { DrawnShapes } from './DrawnShapes';
import { useRecord, useRecordStore } from './record-store';

const CLOSER = 1.8;
const TICK_MS = 100;
/** A figure smaller than this, in pixels of the recording, is a slip of the hand. */
const LEAST_FIGURE = 4;

interface Stroke {
  readonly at: number;
  readonly points: [number, number, number][];
}

/**
 * What lies over the live screen: the practice program is operated through it, and drawings are
 * made on it.
 */
export function LiveOverlay({
  size,
  scale,
  practice,
}: {
  size: { width: number; height: number };
  scale: number;
  practice: PracticeScreen | null;
}) {
  const store = useRecordStore();
  const tool = useRecord((s) => s.tool);
  const color = useRecord((s) => s.color);
  const widthIndex = useRecord((s) => s.lineWidth);
  const live = useRecord((s) => s.live);
  const hold = useRecord((s) => s.settings.hold);
  const phase = useRecord((s) => s.phase);
  const ghost = useRecord((s) => s.ghost);
  const canvas = useEditor((s) => s.project.canvas);
  const overlay = useRef<HTMLDivElement>(null);
  const stroke = useRef<Stroke | null>(null);
  const [draft, setDraft] = useState<readonly Drawn[]>([]);
  const [words, setWords] = useState<{ x: number; y: number } | null>(null);
  const [now, setNow] = useState(0);
  const [shape, setShape] = useState<'arrow' | 'text' | 'hand'>('arrow');
  const ticking = phase === 'recording' && live.some((e) => 'id' in e);
  useEffect(() => {
    if (!ticking) return;
    const timer = setInterval(() => setNow(store.getState().takeTime()), TICK_MS);
    return () => clearInterval(timer);
  }, [ticking, store]);

  const line = LIVE_WIDTHS[widthIndex]![1] * size.height * (tool === 'marker' ? MARKER_FACTOR : 1);
  const place = (event: { clientX: number; clientY: number }) => {
    const box = overlay.current!.getBoundingClientRect();
    const clamp = (v: number, most: number) => Math.max(0, Math.min(most - 1, v));
    return {
      x: clamp((event.clientX - box.left) / scale, size.width),
      y: clamp((event.clientY - box.top) / scale, size.height),
    };
  };
  const round = (n: number) => Math.round(n * 10) / 10;
  const note = store.getState().note;
  /** What a stroke of the pointer means with the tool in hand; null while it means nothing. */
  const eventOf = (points: [number, number, number][], id: string) => {
    const [, x0, y0] = points[0]!;
    const [, x1, y1] = points.at(-1)!;
    const drawn = { width: round(line), color };
    if (tool === 'pen' || tool === 'marker')
      return {
        type: 'stroke' as const,
        id,
        drawn: { kind: 'stroke' as const, tool, ...drawn },
        points,
      };
    if (tool !== 'arrow' && tool !== 'box' && tool !== 'ellipse') return null;
    if (Math.hypot(x1 - x0, y1 - y0) <= LEAST_FIGURE) return null;
    const ends = { from: { x: x0, y: y0 }, to: { x: x1, y: y1 } };
    return {
      type: 'figure' as const,
      id,
      drawn: { kind: 'shape' as const, shape: tool, ...ends, ...drawn },
    };
  };

  const onDown = (event: PointerEvent<HTMLDivElement>) => {
    overlay.current!.focus({ preventScroll: true });
    const { x, y } = place(event);
    if (tool === 'operate') {
      practice?.press(x, y, event.button, event.timeStamp);
      event.currentTarget.setPointerCapture(event.pointerId);
      return;
    }
    // The field for words opens when the press is over, or the press would take the focus from it.
    if (tool === 'text' || tool === 'eraser') return;
    event.currentTarget.setPointerCapture(event.pointerId);
    stroke.current = { at: event.timeStamp, points: [[0, round(x), round(y)]] };
  };
  const onMove = (move: PointerEvent<HTMLDivElement>) => {
    const { x, y } = place(move);
    if (stroke.current) {
      stroke.current.points.push([
        Math.round(move.timeStamp - stroke.current.at),
        round(x),
        round(y),
      ]);
      const event = eventOf(stroke.current.points, 'draft');
      setDraft(event ? drawnMarks({ ...event, t: 0 }, Infinity, size) : []);
    } else if (practice) setShape(practice.move(x, y, move.timeStamp));
  };
  const onUp = (press: PointerEvent<HTMLDivElement>) => {
    if (tool === 'operate') return practice?.release(press.button, press.timeStamp);
    if (tool === 'text') return setWords(place(press));
    const done = stroke.current;
    stroke.current = null;
    setDraft([]);
    if (!done) return;
    const event = eventOf(done.points, nanoid(8));
    // A line appears as it was drawn, a figure once it stands.
    if (event) note(event, event.type === 'stroke' ? done.at : undefined);
  };
  const onDouble = (event: { clientX: number; clientY: number }) => {
    const closer =
      store.getState().live.findLast((e) => e.type === 'closer' || e.type === 'whole')?.type ===
      'closer';
    const { x, y } = place(event);
    note(
      closer
        ? { type: 'whole' }
        : { type: 'closer', x: round(x), y: round(y), magnification: CLOSER },
    );
  };
  const erase = (id: string) => note({ type: 'erase', ids: [id] });
  const drawn = drawnAt(live, Math.max(now, live.at(-1)?.t ?? 0), hold || null, size);
  const lastView = live.findLast((e) => e.type === 'closer' || e.type === 'whole');
  const view =
    lastView?.type === 'closer'
      ? {
          width: size.width / lastView.magnification,
          height: size.height / lastView.magnification,
          x: lastView.x,
          y: lastView.y,
        }
      : null;
  const cursor =
    tool === 'operate'
      ? { arrow: 'default', text: 'text', hand: 'pointer' }[shape]
      : tool === 'text'
        ? 'text'
        : 'crosshair';
  return (
    <div
      ref={overlay}
      role="application"
      aria-label={practice ? 'Practice screen: operate Kilnbook here' : 'Live screen'}
      tabIndex={0}
      data-testid="live-overlay"
      className="absolute inset-0 z-20 touch-none outline-offset-2"
      style={{ cursor }}
      onPointerDown={onDown}
      onPointerMove={onMove}
      onPointerUp={onUp}
      onDoubleClick={onDouble}
      onWheel={(event: WheelEvent) => practice?.wheel(event.deltaY / scale, event.timeStamp)}
      onKeyDown={(event) => {
        if (!practice || event.altKey || event.ctrlKey || event.metaKey) return;
        if (practice.key(event.key, event.timeStamp)) event.preventDefault();
      }}
    >
      <svg
        viewBox={`0 0 ${size.width} ${size.height}`}
        className="size-full"
        aria-hidden
        pointerEvents={tool === 'eraser' ? 'auto' : 'none'}
      >
        <DrawnShapes drawn={drawn} onErase={tool === 'eraser' ? erase : undefined} />
        <DrawnShapes drawn={draft} />
        {view && (
          <rect
            x={Math.max(0, Math.min(size.width - view.width, view.x - view.width / 2))}
            y={Math.max(0, Math.min(size.height - view.height, view.y - view.height / 2))}
            width={view.width}
            height={view.height}
            fill="none"
            stroke="var(--playhead)"
            strokeWidth={3 / scale}
            strokeDasharray={`${12 / scale} ${8 / scale}`}
          />
        )}
        {ghost && (
          <g data-testid="ghost" transform={`translate(${ghost.x} ${ghost.y})`}>
            <circle
              r={26 / scale}
              fill="none"
              stroke="var(--playhead)"
              strokeWidth={3 / scale}
              strokeDasharray={`${6 / scale} ${4 / scale}`}
            />
            <path
              d="M0 0V.87L.21.68.36 1 .53.92.38.62.66.6Z"
              transform={`scale(${28 / scale})`}
              fill="var(--sheet)"
              fillOpacity="0.7"
              stroke="var(--playhead)"
              strokeWidth="0.08"
            />
          </g>
        )}
      </svg>
      {ghost && (
        <p className="absolute top-2 left-1/2 -translate-x-1/2 bg-sheet px-3 py-1 text-xs">
          Bring the pointer back to the ghost, then go on.
        </p>
      )}
      {words && (
        <input
          aria-label="Words to write"
          autoFocus
          className="absolute -translate-1/2 border border-action bg-sheet px-1"
          style={{ left: words.x * scale, top: words.y * scale }}
          onPointerDown={(e) => e.stopPropagation()}
          onPointerUp={(e) => e.stopPropagation()}
          onKeyDown={(e) => {
            e.stopPropagation();
            if (e.key === 'Escape') setWords(null);
            if (e.key !== 'Enter') return;
            const text = e.currentTarget.value.trim();
            if (text)
              note({
                type: 'words',
                id: nanoid(8),
                text,
                x: round(words.x),
                y: round(words.y),
                color,
                size: Math.round(LIVE_LETTERS * canvas.height),
              });
            setWords(null);
          }}
          onBlur={() => setWords(null)}
        />
      )}
    </div>
  );
}
