import type { Rest } from '@/core/layout/snap-lines';

/** The lines on which something that is dragged rests, across the whole Picture. */
export function SnapLines({ lines }: { lines: Rest['lines'] | null }) {
  return (
    <>
      {lines?.x.map((x) => (
        <span
          key={`x${x}`}
          className="pointer-events-none absolute inset-y-0 w-px bg-action"
          style={{ left: `${x * 100}%` }}
        />
      ))}
      {lines?.y.map((y) => (
        <span
          key={`y${y}`}
          className="pointer-events-none absolute inset-x-0 h-px bg-action"
          style={{ top: `${y * 100}%` }}
        />
      ))}
    </>
  );
}
