import type { PointerEvent as ReactPointerEvent } from 'react';

/** A touch that stays this long, in milliseconds, asks for the menu as a right press does. */
const MENU_AFTER_MS = 600;

/** Asks for the menu of what is at a place of the window. */
const askForMenu = (target: EventTarget, { x, y }: { x: number; y: number }): void =>
  void target.dispatchEvent(
    new MouseEvent('contextmenu', { bubbles: true, cancelable: true, clientX: x, clientY: y }),
  );

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
  const pressed = event.target;
  const from = { x: event.clientX, y: event.clientY };
  let moved = false;
  const menu =
    event.pointerType === 'touch'
      ? setTimeout(() => {
          stop();
          askForMenu(pressed, from);
        }, MENU_AFTER_MS)
      : undefined;
  const move = (e: PointerEvent) => {
    if (e.pointerId !== pointerId) return;
    if (!moved && Math.hypot(e.clientX - from.x, e.clientY - from.y) > 3) {
      moved = true;
      clearTimeout(menu);
      // Not before: whoever captures the pointer also gets the double press that another element
      // waits for.
      if (target.isConnected) target.setPointerCapture(pointerId);
    }
    if (moved) onMove(e.clientX - from.x, e.clientY - from.y, e);
  };
  const stop = () => {
    clearTimeout(menu);
    window.removeEventListener('pointermove', move);
    window.removeEventListener('pointerup', end);
    window.removeEventListener('pointercancel', end);
  };
  const end = (e: PointerEvent) => {
    if (e.pointerId !== pointerId) return;
    stop();
    onEnd(moved);
  };
  window.addEventListener('pointermove', move);
  window.addEventListener('pointerup', end);
  window.addEventListener('pointercancel', end);
}
