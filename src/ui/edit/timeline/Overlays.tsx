'use client';
import { rangeOf, useEditor, useTransport } from '../store';
import { toPixels } from './geometry';
import type { Band } from './use-rubber-band';

export function Playhead() {
  const playhead = useTransport((t) => t.playhead);
  const scale = useEditor((s) => s.pixelsPerSecond);
  return (
    <div
      className="pointer-events-none absolute inset-y-0 left-0 z-10 w-px bg-playhead will-change-transform"
      style={{ transform: `translateX(${toPixels(playhead, scale)}px)` }}
      data-testid="playhead"
    >
      <span className="sticky top-0 block size-2 -translate-x-1/2 bg-playhead" />
    </div>
  );
}

/** The stretch between in and out, over all rows; one point alone is a line. */
export function RangeBand() {
  const range = useEditor((s) => rangeOf(s));
  const points = useEditor((s) => s.range);
  const scale = useEditor((s) => s.pixelsPerSecond);
  const single = range ? null : (points.in ?? points.out);
  return (
    <>
      {range && (
        <div
          data-testid="range"
          className="pointer-events-none absolute inset-y-0 z-[8] border-x-2 border-action bg-action/15"
          style={{
            left: toPixels(range.start, scale),
            width: Math.max(2, toPixels(range.end - range.start, scale)),
          }}
        />
      )}
      {single !== null && (
        <div
          className="pointer-events-none absolute inset-y-0 z-[8] border-l-2 border-dashed border-action"
          style={{ left: toPixels(single, scale) }}
        />
      )}
    </>
  );
}

export function RubberBand({ band }: { band: Band | null }) {
  return (
    band && (
      <div
        className="pointer-events-none absolute z-40 border border-action bg-action/10"
        style={band}
        data-testid="rubber-band"
      />
    )
  );
}
