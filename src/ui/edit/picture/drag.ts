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
  const { pointerId } = event;
  const target = event.currentTarget as HTMLElement;
  const from = { x: event.clientX, y: event.clientY };
  let moved = false;
  const move = (e: PointerEvent) => {
    if (e.pointerId !== pointerId) return;
    if (!moved && Math.hypot(e.clientX - from.x, e.clientY - from.y) > 3) {
      moved = true;
      // Not before: whoever captures the pointer also gets the double press that another element
      // waits for.
      if (target.isConnected) target.setPointerCapture(pointerId);
    }
    if (moved) onMove(e.clientX - from.x, e.clientY - from.y, e);
  };
  const end = (e: PointerEvent) => {
    if (e.pointerId !== pointerId) return;
    window.removeEventListener('pointermove', move);
    window.removeEventListener('pointerup', end);
    window.removeEventListener('pointercancel', end);
    onEnd(moved);
  };
  window.addEventListener('pointermove', move);
  window.addEventListener('pointerup', end);
  window.addEventListener('pointercancel', end);
}
