'use client';
import { inputLook } from './fields';

interface Rect {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

const SIDES = [
  ['x', 'Left'],
  ['y', 'Top'],
  ['width', 'Width'],
  ['height', 'Height'],
] as const;

/** A rectangle in numbers, whole even pixels. */
export function RectFields({
  rect,
  onSide,
}: {
  rect: Rect;
  onSide: (side: keyof Rect, value: number) => void;
}) {
  return (
    <div className="grid grid-cols-4 gap-1.5">
      {SIDES.map(([side, label]) => (
        <label key={side} className="grid gap-0.5 text-xs text-ink-2">
          {label}
          <input
            type="number"
            step={2}
            value={rect[side]}
            onChange={(e) => onSide(side, Number(e.target.value))}
            className={`${inputLook} numbers px-1 text-ink [&::-webkit-inner-spin-button]:appearance-none`}
          />
        </label>
      ))}
    </div>
  );
}
