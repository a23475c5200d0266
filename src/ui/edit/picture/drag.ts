import type { PointerEvent as ReactPointerEvent } from 'react';

/** Follows a press until it is let go; `onMove` gets the way from where it began, in CSS pixels. */
export function followDrag(
  event: ReactPointerEvent,
  onMove: (dx: number, dy: number, event: PointerEvent) => void,
  onEnd: (moved: boolean) => void = () => {},
): void {
  if (event.button !== 0) return;
  event.preventDefault();
  event.stopPropagation();
  const target = event.currentTarget as HTMLElement;
  target.setPointerCapture(event.pointerId);
  const from = { x: event.clientX, y: event.clientY };
  let moved = false;
  const move = (e: PointerEvent) => {
    moved ||= Math.hypot(e.clientX - from.x, e.clientY - from.y) > 3;
    if (moved) onMove(e.clientX - from.x, e.clientY - from.y, e);
  };
  const end = () => {
    target.removeEventListener('pointermove', move);
    target.removeEventListener('pointerup', end);
    target.removeEventListener('pointercancel', end);
    onEnd(moved);
  };
  target.addEventListener('pointermove', move);
  target.addEventListener('pointerup', end);
  target.addEventListener('pointercancel', end);
}
