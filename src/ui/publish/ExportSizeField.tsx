'use client';
import { useState } from 'react';
import {
  evenSize,
  exportScale,
  LEAST_SIDE,
  MOST_SIDE,
  sizeOfWidth,
  wholeSizes,
} from '@/core/scale/export-size';
import type { Size } from '@/core/scale/rect';
import { NumberField, SelectField } from '../parts/fields';

const SHARES = [1, 2 / 3, 1 / 2] as const;
const OTHER = 'other';
const keyOf = ({ width, height }: Size) => `${width}x${height}`;

/** How a size is written. */
export const sizeName = ({ width, height }: Size) => `${width}×${height} px`;

/** The size, what it does to text, and the sizes that leave text alone. */
export function ExportSizeField({
  own,
  size,
  onChange,
}: {
  own: Size;
  size: Size;
  onChange: (size: Size) => void;
}) {
  const [other, setOther] = useState(false);
  const sizes = [...SHARES.map((share) => evenSize(own, share)), size].filter(
    (s, i, all) => all.findIndex((o) => keyOf(o) === keyOf(s)) === i,
  );
  const { scale, whole } = exportScale(size, own);
  const take = (found: Size | undefined) => {
    setOther(!found);
    if (found) onChange(found);
  };
  return (
    <div className="grid gap-2">
      <SelectField
        label="Size"
        value={other ? OTHER : keyOf(size)}
        options={[
          ...sizes.map(
            (s) =>
              [
                keyOf(s),
                `${sizeName(s)}${keyOf(s) === keyOf(own) ? ', as the project' : ''}`,
              ] as const,
          ),
          [OTHER, 'Custom width'] as const,
        ]}
        onChange={(key) => take(sizes.find((s) => keyOf(s) === key))}
      />
      {other && (
        <NumberField
          label="Width"
          unit="px"
          value={size.width}
          min={LEAST_SIDE}
          max={MOST_SIDE}
          step={2}
          onDone={(width) => onChange(sizeOfWidth(own, width))}
        />
      )}
      {!whole && (
        <div className="grid gap-1 text-xs">
          <p className="text-caution">
            Everything is scaled by {scale.toFixed(2)}, between whole pixels: small text gets
            softer.
          </p>
          <p className="flex flex-wrap items-center gap-1">
            Sharp at:
            {wholeSizes(own)
              .filter((s) => s.width <= own.width)
              .map((s) => (
                <button
                  key={keyOf(s)}
                  type="button"
                  className="numbers rounded-(--radius) border border-line bg-sheet px-1.5 py-0.5 hover:border-ink-2"
                  onClick={() => take(s)}
                >
                  {sizeName(s)}
                </button>
              ))}
          </p>
        </div>
      )}
    </div>
  );
}
