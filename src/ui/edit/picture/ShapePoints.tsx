'use client';
import type { KeyboardEvent, PointerEvent } from 'react';
import { withoutPoint, withPoint, withPointAt, type OwnShape } from '@/core/layout/own-shape';
import { takeArrow } from './arrows';
import { followDrag } from './drag';

/** An arrow moves a point by so much of the box; with Shift by more. */
const NUDGE = 0.01;
const LARGE_NUDGE = 0.05;

/**
 * The points of an outline of one's own, in the box that it lies in: dragged, put in between, taken
 * away.
 *
 * @param width of the box, in CSS pixels
 * @param onPoints takes over other points
 * @param begin begins a drag; what it answers takes over its points
 */
export function ShapePoints({
  points,
  width,
  height,
  onPoints,
  begin,
}: {
  points: OwnShape;
  width: number;
  height: number;
  onPoints: (points: OwnShape) => void;
  begin: () => (points: OwnShape) => void;
}) {
  const drag = (index: number) => (event: PointerEvent<HTMLElement>) => {
    event.currentTarget.focus({ preventScroll: true });
    const to = begin();
    const { x, y } = points[index]!;
    followDrag(event, (dx, dy) =>
      to(withPointAt(points, index, { x: x + dx / width, y: y + dy / height })),
    );
  };
  const onKey = (index: number) => (event: KeyboardEvent) => {
    const { x, y } = points[index]!;
    if (event.key === 'Delete' || event.key === 'Backspace' || event.key === 'Enter') {
      event.preventDefault();
      event.stopPropagation();
      return onPoints(
        event.key === 'Enter' ? withPoint(points, index) : withoutPoint(points, index),
      );
    }
    const way = takeArrow(event);
    if (!way) return;
    const by = event.shiftKey ? LARGE_NUDGE : NUDGE;
    onPoints(withPointAt(points, index, { x: x + way[0] * by, y: y + way[1] * by }));
  };
  return points.map(({ x, y }, index) => (
    <span
      key={index}
      role="group"
      tabIndex={0}
      aria-label={`Point ${index + 1} of the outline: drag, or use the arrow keys; Enter puts one after it, Delete takes it away`}
      title="A double press puts another after it, Delete takes it away"
      data-testid="shape-point"
      className="absolute grid size-6 -translate-1/2 cursor-move place-items-center"
      style={{ left: `${x * 100}%`, top: `${y * 100}%` }}
      onPointerDown={drag(index)}
      onDoubleClick={() => onPoints(withPoint(points, index))}
      onKeyDown={onKey(index)}
    >
      <span className="size-2.5 rounded-full border-2 border-ink bg-sheet" />
    </span>
  ));
}
