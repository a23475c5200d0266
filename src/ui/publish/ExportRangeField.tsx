'use client';
import type { TypedRange } from '@/core/project/export-choice';
import { ticksToSeconds, type Ticks } from '@/core/time/ticks';
import { formatClock } from '@/core/time/timecode';
import { Field, inputLook } from '../parts/fields';

/** The stretch of the timeline, or for a still its instant. */
export function ExportRangeField({
  still,
  length,
  playhead,
  range,
  onChange,
}: {
  still: boolean;
  length: Ticks;
  playhead: Ticks;
  range: TypedRange;
  onChange: (range: TypedRange) => void;
}) {
  const clock = (time: Ticks) => formatClock(ticksToSeconds(time));
  const look = `${inputLook} numbers`;
  return (
    <Field
      label={still ? 'At' : 'Range'}
      hint={still ? 'Empty is the playhead.' : `Empty is all of it, ${clock(length)}.`}
    >
      {(id) => (
        <div className="flex items-center gap-2">
          <input
            id={id}
            aria-label={still ? 'Time of the picture' : 'Range start'}
            placeholder={still ? clock(playhead) : 'start'}
            className={look}
            value={range.from}
            onChange={(e) => onChange({ ...range, from: e.target.value })}
          />
          {!still && (
            <>
              to
              <input
                aria-label="Range end"
                placeholder="end"
                className={look}
                value={range.to}
                onChange={(e) => onChange({ ...range, to: e.target.value })}
              />
            </>
          )}
        </div>
      )}
    </Field>
  );
}
