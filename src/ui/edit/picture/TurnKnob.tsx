import type { KeyboardEvent, PointerEvent } from 'react';
import { middleOf } from '@/core/scale/rect';
import { takeArrow } from './arrows';
import { followDrag } from './drag';

/** With Shift an arrow turns by so many degrees. */
const LARGE_TURN = 10;
/** So near to upright, in degrees, a turn by hand comes to rest there. */
const UPRIGHT_WITHIN = 3;

/** The knob at the top of a box by which something is turned about the box's middle. */
export function TurnKnob({
  what,
  degrees,
  least,
  most,
  against = false,
  testId,
  begin,
  byKey,
}: {
  what: string;
  degrees: number;
  least: number;
  most: number;
  /** Whether it turns the other way than the knob does. */
  against?: boolean;
  testId: string;
  /** Begins a drag, whose turns are told to what it answers. */
  begin: () => (degrees: number) => void;
  byKey: (degrees: number) => void;
}) {
  const within = (wanted: number) => Math.min(most, Math.max(least, wanted));
  const drag = (event: PointerEvent<HTMLElement>) => {
    event.currentTarget.focus({ preventScroll: true });
    const { x, y } = middleOf(event.currentTarget.parentElement!.getBoundingClientRect());
    const angle = (pointer: { readonly clientX: number; readonly clientY: number }) =>
      (Math.atan2(pointer.clientX - x, y - pointer.clientY) * 180) / Math.PI;
    const from = angle(event);
    const to = begin();
    followDrag(event, (_dx, _dy, pointer) => {
      const way = angle(pointer) - from;
      const wanted = Math.round(degrees + (against ? -way : way));
      // It comes to rest upright, unless Alt is held as for all snapping.
      const near = !pointer.altKey && Math.abs(wanted) <= UPRIGHT_WITHIN;
      to(near ? 0 : within(wanted));
    });
  };
  const onKey = (event: KeyboardEvent) => {
    const way = takeArrow(event);
    if (way) byKey(within(degrees + (way[0] || way[1]) * (event.shiftKey ? LARGE_TURN : 1)));
  };
  return (
    <span
      role="group"
      tabIndex={0}
      aria-label={`Turn ${what}, now ${degrees}°: drag, or use the arrow keys`}
      title={`Turn (${degrees}°)`}
      data-testid={testId}
      className="absolute top-1 left-1/2 size-4 -translate-x-1/2 cursor-grab rounded-full border-2 border-ink bg-sheet/80"
      onPointerDown={drag}
      onKeyDown={onKey}
    />
  );
}
