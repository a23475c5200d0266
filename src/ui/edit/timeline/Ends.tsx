import type { PointerEvent } from 'react';

/** The ends of something on the timeline, to be pulled. */
export function Ends({ pull }: { pull: (side: 'start' | 'end') => (event: PointerEvent) => void }) {
  return (
    <>
      <span
        className="absolute inset-y-0 left-0 w-1.5 pointer-coarse:w-4 cursor-ew-resize"
        data-trim="start"
        onPointerDown={pull('start')}
      />
      <span
        className="absolute inset-y-0 right-0 w-1.5 pointer-coarse:w-4 cursor-ew-resize"
        data-trim="end"
        onPointerDown={pull('end')}
      />
    </>
  );
}
