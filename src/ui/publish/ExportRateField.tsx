'use client';
import { GIF } from '@/core/project/export-choice';
import type { Format } from '@/core/project/export-formats';
import { framesPerSecond, rateFromNumber, type FrameRate } from '@/core/time/ticks';
import { SelectField } from '../parts/fields';
import { USUAL_RATES } from '@/core/time/rates';

const GIF_USUAL_RATES = [10, GIF.rate, 25].map(
  (rate) => [String(rate), rateFromNumber(rate)] as const,
);
const same = (a: FrameRate, b: FrameRate) => a.num * b.den === b.num * a.den;

/** The frame rate: those that a GIF can have, or the usual ones. */
export function ExportRateField({
  format,
  own,
  rate,
  onChange,
}: {
  format: Format;
  own: FrameRate;
  rate: FrameRate;
  onChange: (rate: FrameRate) => void;
}) {
  const rates = format === 'gif' ? GIF_USUAL_RATES : USUAL_RATES;
  const ownName = `${Number(framesPerSecond(own).toFixed(2))} fps, as the project`;
  const options = [
    ...(format === 'gif' && framesPerSecond(own) > 25 ? [] : [['own', ownName, own] as const]),
    ...rates
      .filter(([, r]) => !same(r, own))
      .map(([label, r]) => [label, `${label} fps`, r] as const),
  ];
  const value = options.find(([, , r]) => same(r, rate))?.[0] ?? options[0]![0];
  return (
    <SelectField
      label="Frame rate"
      value={value}
      options={options.map(([key, label]) => [key, label] as const)}
      onChange={(key) => onChange(options.find(([k]) => k === key)![2])}
    />
  );
}
