'use client';
import type { KeyboardEvent, PointerEvent } from 'react';
import { CLOSEST_BY_HAND } from '@/core/framing/by-hand';
import { keepInside } from '@/core/framing/path';
import { snapMoved, snapSized } from '@/core/framing/page-edges';
import { MOST_TURN } from '@/core/project/parts/framing';
import { middleOf, turned, type InFootage } from '@/core/scale/rect';
import type { Page } from '@/core/vision/page';
import { useEditorStore } from '../store';
import { takeArrow } from './arrows';
import { followDrag } from './drag';
import { TurnKnob } from './TurnKnob';

/** Edges meet panels and text lines that are so near on screen. */
const REACH_PX = 7;
/** An arrow moves a view by this share of its width; with Shift by more. */
const NUDGE = 0.01;
const LARGE_NUDGE = 0.1;
const CORNERS = [
  [-1, -1, 'top-0 left-0 cursor-nwse-resize'],
  [1, -1, 'top-0 right-0 cursor-nesw-resize'],
  [-1, 1, 'bottom-0 left-0 cursor-nesw-resize'],
  [1, 1, 'right-0 bottom-0 cursor-nwse-resize'],
] as const;

/** Takes each change of a gesture; a change by a key says so. */
interface Gesture<T> {
  readonly begin: () => (to: T) => void;
  readonly byKey: (to: T) => void;
}

/** How a view is moved and sized, and how what is seen in it is turned. */
export type ViewGesture = Gesture<InFootage> & { readonly turn: Gesture<number> | null };

/**
 * The rectangle of a view over the whole screen: dragged, sized at its corners, moved by arrows.
 */
export function ViewRect({
  rect,
  turn,
  whole,
  ratio,
  page,
  label,
  soft,
  dashed,
  dimmed,
  testId,
  gesture,
}: {
  rect: InFootage;
  /** Degrees by which what is seen is turned, clockwise: the view lies the other way round. */
  turn: number;
  whole: InFootage;
  /** CSS pixels for one footage pixel. */
  ratio: number;
  /** What there is to read, which its edges keep beside; null where it is not known. */
  page: Page | null;
  label: string;
  soft: boolean;
  dashed: boolean;
  /** Darkens what is outside of it. */
  dimmed: boolean;
  testId: string;
  gesture: ViewGesture;
}) {
  const store = useEditorStore();
  const drag = (
    event: PointerEvent,
    change: (dx: number, dy: number, snaps: boolean) => InFootage,
  ) => {
    event.currentTarget.closest<HTMLElement>('[data-view]')?.focus({ preventScroll: true });
    const to = gesture.begin();
    followDrag(event, (dx, dy, pointer) => {
      // What is read stands upright, and so beside no edge of a view that does not.
      const snaps = store.getState().snapping && !pointer.altKey && !turn;
      to(keepInside(change(dx / ratio, dy / ratio, snaps), whole));
    });
  };
  const reach = REACH_PX / ratio;
  const move = (event: PointerEvent) =>
    drag(event, (dx, dy, snaps) => {
      const moved = { ...rect, x: rect.x + dx, y: rect.y + dy };
      return snaps && page ? snapMoved(moved, page, whole, reach) : moved;
    });
  const resize = (sx: 1 | -1, sy: 1 | -1) => (event: PointerEvent) =>
    drag(event, (right, down, snaps) => {
      const { x: dx, y: dy } = turned(right, down, turn);
      const wanted = rect.width + Math.max(sx * dx, (sy * dy * whole.width) / whole.height);
      const width = Math.min(whole.width, Math.max(whole.width / CLOSEST_BY_HAND, wanted));
      const height = (width * whole.height) / whole.width;
      // The corner opposite stays where it is.
      const by = turned((sx * (width - rect.width)) / 2, (sy * (height - rect.height)) / 2, -turn);
      const middle = middleOf(rect);
      const sized = {
        width,
        height,
        x: middle.x + by.x - width / 2,
        y: middle.y + by.y - height / 2,
      };
      return snaps && page ? snapSized(sized, sx, sy, page, whole, reach) : sized;
    });
  const onKey = (event: KeyboardEvent) => {
    const way = takeArrow(event);
    if (!way) return;
    const by = rect.width * (event.shiftKey ? LARGE_NUDGE : NUDGE);
    gesture.byKey(keepInside({ ...rect, x: rect.x + way[0] * by, y: rect.y + way[1] * by }, whole));
  };
  return (
    <div
      role="group"
      tabIndex={0}
      aria-label={`${label}: drag or use the arrow keys to move it`}
      data-view
      className={`absolute cursor-move border-2 ${dashed ? 'border-dashed' : ''} ${soft ? 'border-caution' : 'border-playhead'}`}
      style={{
        left: (rect.x - whole.x) * ratio,
        top: (rect.y - whole.y) * ratio,
        width: rect.width * ratio,
        height: rect.height * ratio,
        ...(turn && { rotate: `${-turn}deg` }),
        ...(dimmed && { boxShadow: '0 0 0 9999px rgb(0 0 0 / 0.35)' }),
      }}
      onPointerDown={move}
      onKeyDown={onKey}
      data-testid={testId}
    >
      <span
        className={`numbers absolute left-4 bg-sheet px-1 text-xs whitespace-nowrap ${dashed ? 'bottom-0' : 'top-0'}`}
      >
        {label}
      </span>
      {gesture.turn && (
        <TurnKnob
          what="what is seen"
          degrees={turn}
          least={-MOST_TURN}
          most={MOST_TURN}
          against
          testId="framing-turn"
          {...gesture.turn}
        />
      )}
      {CORNERS.map(([sx, sy, style]) => (
        <span
          key={`${sx} ${sy}`}
          onPointerDown={resize(sx, sy)}
          className={`absolute size-3 border-2 border-ink bg-sheet ${style}`}
          data-testid={`${testId === 'framing-rect' ? 'framing' : testId}-corner-${sx}-${sy}`}
        />
      ))}
    </div>
  );
}
