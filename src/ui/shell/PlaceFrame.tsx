import type { ReactNode } from 'react';

/**
 * The room of a place: all of the window. Where that is too small, as when everything is enlarged,
 * the place keeps its least size and the window scrolls over it, so that all of it is reached.
 */
export function PlaceFrame({ rows, children }: { rows: string; children: ReactNode }) {
  return (
    <div className="h-screen overflow-auto">
      <div className={`grid h-full min-h-[560px] min-w-[960px] overflow-hidden ${rows}`}>
        {children}
      </div>
    </div>
  );
}
