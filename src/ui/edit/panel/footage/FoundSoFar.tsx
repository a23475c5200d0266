'use client';
import { isOf } from '@/core/schema/check-plain';
import type { Size } from '@/core/scale/rect';
import { formatClock } from '@/core/time/timecode';
import { SightSoFarSchema, SO_FAR_PARTS, type SightSoFar } from '@/core/vision/so-far';
import { foundIn, pressesInferred } from './in-words';

/** Units of the drawing across. */
const WIDE = 320;

/** The path as lines, one for each time in which the pointer is seen throughout. */
function linesOf({ path }: SightSoFar, height: number): string {
  let drawn = '';
  path.forEach((place, i) => {
    if (!place) return;
    const [x, y] = [(place[0] / SO_FAR_PARTS) * WIDE, (place[1] / SO_FAR_PARTS) * height];
    drawn += `${path[i - 1] ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`;
  });
  return drawn;
}

/** What was found by now in a recording that is being looked through, as it comes. */
export function FoundSoFar({
  summary,
  shape,
}: {
  summary: Readonly<Record<string, unknown>>;
  shape: Size;
}) {
  const { soFar } = summary;
  if (!isOf(SightSoFarSchema, soFar)) return null;
  const height = (WIDE * shape.height) / Math.max(1, shape.width);
  const first = `the first ${formatClock(Math.floor(soFar.until / 1000))}`;
  const words = soFar.pointer
    ? `${foundIn(soFar.pointer, first)}, ${pressesInferred(soFar.presses.length)}.`
    : `No pointer in ${first} yet.`;
  return (
    <figure className="grid gap-1">
      {soFar.pointer > 0 && (
        <svg
          viewBox={`0 0 ${WIDE} ${height}`}
          role="img"
          aria-label="The pointer’s path so far"
          className="w-full max-w-64 rounded border border-line bg-sheet"
        >
          <path
            d={linesOf(soFar, height)}
            fill="none"
            className="stroke-action"
            strokeWidth={1.5}
          />
          {soFar.presses.map(([x, y], i) => (
            <circle
              key={i}
              cx={(x / SO_FAR_PARTS) * WIDE}
              cy={(y / SO_FAR_PARTS) * height}
              r={3.5}
              fill="none"
              className="stroke-ink"
              strokeWidth={1.5}
            />
          ))}
        </svg>
      )}
      <figcaption className="text-xs text-ink-2">{words}</figcaption>
    </figure>
  );
}
