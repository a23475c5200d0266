'use client';
import { useEffect, useMemo, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { drawnPath } from '@/core/telemetry/drawn-path';
import { confidenceAt, SURE } from '@/core/telemetry/correct';
import { isHiddenAt, pointerAt } from '@/core/telemetry/sample';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import { pathHere } from '../path-here';
import { useEditor, useEditorStore, useTransport } from '../store';
import { useWhole } from '../use-whole';
import { takeArrow } from './arrows';
import { followDrag } from './drag';

/** So much of the path is seen before and after the playhead, in ms. */
const AROUND = 1600;
const LINE_STEP = 40;
/** Points to drag stand so far apart in time. */
const POINT_STEP = 400;
/** Moving a point moves the path by less up to so far away. */
const REACH = 500;
/** An arrow moves the pointer by a pixel of the recording, with Shift by more. */
const LARGE_NUDGE = 10;

interface Spot {
  readonly ms: number;
  readonly x: number;
  readonly y: number;
  readonly seen: boolean;
  readonly sure: boolean;
}

function spotAt(track: PointerTrack, ms: number): Spot {
  return {
    ms,
    ...pointerAt(track, ms),
    seen: !isHiddenAt(track, ms),
    sure: confidenceAt(track, ms) >= SURE,
  };
}

/** The pointer's path around the playhead on the whole screen, with points to drag. */
export function PathHandles({ footageId, scale }: { footageId: string; scale: number }) {
  const store = useEditorStore();
  const project = useEditor((s) => s.project);
  const sources = useEditor((s) => s.sources);
  const range = useEditor((s) => s.range);
  const drawing = useEditor((s) => s.drawing === 'path');
  const playhead = useTransport((t) => t.playhead);
  const playing = useTransport((t) => t.rate !== 0);
  const whole = useWhole(footageId);
  const [drawn, setDrawn] = useState<readonly { x: number; y: number }[]>([]);
  useEffect(() => {
    store.setState({ view: { whole: true, plain: true } });
    return () => store.setState({ view: {} });
  }, [store]);
  const here = useMemo(
    () => pathHere({ project, sources, range }, footageId, playhead),
    [project, sources, range, footageId, playhead],
  );
  if (!whole) return null;
  if (!here)
    return (
      <p className="absolute top-1 left-1 bg-sheet px-2 py-0.5 text-xs">
        The playhead is outside of this recording; go to it to mend its pointer’s path.
      </p>
    );
  const { track, ms, from, to } = here;
  const ratio = (project.canvas.width * scale) / whole.width;
  const place = ({ x, y }: { x: number; y: number }) => ({
    x: (x - whole.x) * ratio,
    y: (y - whole.y) * ratio,
  });
  const begin = ms - AROUND;
  const line = track
    ? Array.from({ length: (2 * AROUND) / LINE_STEP + 1 }, (_, i) => begin + i * LINE_STEP)
        .filter((t) => t >= 0)
        .map((t) => spotAt(track, t))
    : [];
  const points = track
    ? Array.from({ length: (2 * AROUND) / POINT_STEP + 1 }, (_, i) => begin + i * POINT_STEP)
        .filter((t) => t >= 0)
        .map((t) => spotAt(track, t))
    : [];
  const now = track && spotAt(track, ms);

  const drag = (event: PointerEvent, at: number) => {
    const under = store.getState().drag();
    followDrag(event, (dx, dy) =>
      under.to('correct-pointer', {
        footageId,
        correction: { kind: 'shift', at, dx: dx / ratio, dy: dy / ratio, reach: REACH },
      }),
    );
  };
  const nudge = (event: KeyboardEvent) => {
    const way = takeArrow(event);
    if (!way) return;
    const by = event.shiftKey ? LARGE_NUDGE : 1;
    const [dx, dy] = [way[0] * by, way[1] * by];
    const correction = { kind: 'shift' as const, at: ms, dx, dy, reach: REACH };
    store.getState().apply('correct-pointer', { footageId, correction }, true);
  };
  const draw = (event: PointerEvent) => {
    const box = event.currentTarget.getBoundingClientRect();
    const first = { x: event.clientX - box.left, y: event.clientY - box.top };
    let spots = [first];
    setDrawn(spots);
    followDrag(
      event,
      (dx, dy) => {
        spots = [...spots, { x: first.x + dx, y: first.y + dy }];
        setDrawn(spots);
      },
      () => {
        setDrawn([]);
        const path = drawnPath(
          spots.map(({ x, y }) => ({ x: whole.x + x / ratio, y: whole.y + y / ratio })),
          from,
          to,
        );
        store.setState({ drawing: null });
        if (path.length)
          store.getState().apply('correct-pointer', {
            footageId,
            correction: { kind: 'path', points: path },
          });
      },
    );
  };
  const text = (spots: readonly { x: number; y: number }[]) =>
    spots.map((spot) => `${spot.x.toFixed(1)},${spot.y.toFixed(1)}`).join(' ');
  return (
    <div
      className={`absolute inset-0 ${drawing ? 'cursor-crosshair' : ''}`}
      onPointerDown={drawing ? draw : undefined}
      data-testid="path-handles"
    >
      <svg className="pointer-events-none absolute inset-0 size-full" aria-hidden>
        {line.slice(1).map((spot, i) => {
          const [a, b] = [place(line[i]!), place(spot)];
          if (!spot.seen) return null;
          return (
            <line
              key={spot.ms}
              {...{ x1: a.x, y1: a.y, x2: b.x, y2: b.y }}
              stroke={spot.sure ? 'var(--lane-pointer)' : 'var(--caution)'}
              strokeWidth={2.5}
              strokeDasharray={spot.sure ? undefined : '4 3'}
            />
          );
        })}
        <polyline points={text(drawn)} fill="none" stroke="var(--playhead)" strokeWidth={3} />
      </svg>
      {!drawing &&
        !playing &&
        points.map((spot) => {
          const { x, y } = place(spot);
          return (
            <span
              key={spot.ms}
              title="Drag the path here"
              data-testid="path-point"
              className={`absolute size-3 -translate-1/2 cursor-move rounded-full border-2 ${spot.seen ? 'bg-sheet' : 'border-dashed bg-sheet/40'}`}
              style={{ left: x, top: y, borderColor: 'var(--lane-pointer)' }}
              onPointerDown={(event) => drag(event, spot.ms)}
            />
          );
        })}
      {now && !drawing && (
        <span
          title={
            now.seen
              ? 'The pointer now: drag it to where it is'
              : 'Hidden now: drag it to where it is'
          }
          data-testid="path-now"
          className={`absolute size-5 -translate-1/2 cursor-move rounded-full border-[3px] border-playhead ${now.seen ? '' : 'border-dashed'}`}
          style={{ left: place(now).x, top: place(now).y }}
          role="group"
          tabIndex={0}
          aria-label="The pointer at the playhead: drag or use the arrow keys to move it"
          onPointerDown={(event) => drag(event, ms)}
          onKeyDown={nudge}
        />
      )}
    </div>
  );
}
