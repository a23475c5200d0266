'use client';
import { useState } from 'react';
import { areaOfShape, barsOf, bestCamera, captureSize, SCREEN_SIZES } from '@/core/scale/capture';
import type { Size } from '@/core/scale/rect';
import { useEditor } from '../edit/store';
import { SliderField } from '../parts/fields';

const DRAWN = 92;
const percent = (share: number) => `${Math.round(share * 100)} %`;

/**
 * What size to capture so that every framing stays sharp, and what sources of other shapes would
 * leave.
 */
export function CaptureAdvice() {
  const canvas = useEditor((s) => s.project.canvas);
  const [closest, setClosest] = useState(1.4);
  const [source, setSource] = useState(0);
  const wanted = captureSize(canvas, closest);
  const fits = SCREEN_SIZES.find(
    (s) => s.width >= wanted.width && s.height >= wanted.height && barsOf(s, canvas).share < 0.001,
  );
  const camera = bestCamera(canvas);
  const other = SCREEN_SIZES[source]!;
  const bars = barsOf(other, canvas);
  const area = areaOfShape(other, canvas);
  return (
    <section aria-label="Capture" className="mt-4 border-t border-line pt-3">
      <h2 className="mb-2 font-semibold">Capture</h2>
      <SliderField
        label="Closest view"
        value={closest}
        min={1}
        max={3}
        step={0.1}
        unit="×"
        onChange={setClosest}
        show={(v) => v.toFixed(1)}
      />
      <p className="my-2">
        Record the screen at{' '}
        <strong className="numbers" data-testid="capture-size">
          {wanted.width}×{wanted.height} px
        </strong>{' '}
        or more; then every view up to {closest.toFixed(1)}× stays sharp.
        {fits && ` A screen set to ${fits.width}×${fits.height} px does it.`}
      </p>
      <p className="mb-3">
        {camera ? (
          <>
            Camera: <strong className="numbers">{`${camera.width}×${camera.height} px`}</strong>{' '}
            fills the frame without bars
            {camera.fills
              ? '.'
              : ', though it has to be enlarged for a full picture; in the corner it is sharp.'}
          </>
        ) : (
          'No usual camera size has this shape: full, the presenter is cropped at the sides; in the corner nothing is lost.'
        )}
      </p>
      <label className="mb-2 flex items-center gap-2 text-ink-2">
        A screen of
        <select
          className="rounded-(--radius) border border-line bg-sheet px-2 py-1 text-ink"
          value={source}
          onChange={(e) => setSource(Number(e.target.value))}
        >
          {SCREEN_SIZES.map((s, i) => (
            <option key={s.name} value={i}>
              {s.width}×{s.height} px ({s.name})
            </option>
          ))}
        </select>
      </label>
      {bars.share < 0.001 ? (
        <p>has the frame’s shape: no bars.</p>
      ) : (
        <>
          <div className="flex items-end gap-4">
            <Drawing frame={canvas} source={other} label="fit" fill={false} />
            <Drawing frame={canvas} source={other} label="fill" fill />
          </div>
          <ul className="mt-2 list-disc pl-4 text-xs">
            <li>
              Fit: bars of{' '}
              {bars.side ? `${bars.side} px at each side` : `${bars.above} px above and below`},{' '}
              {percent(bars.share)} of the picture.
            </li>
            <li>Fill: {percent(bars.lost)} of the screen is cut off.</li>
            <li>
              Best: record an area of {area.width}×{area.height} px at {area.x}, {area.y}, which has
              the frame’s shape. Set it in Record.
            </li>
          </ul>
        </>
      )}
    </section>
  );
}

/** Frame and source to scale: what is seen, the bars (hatched), and what is cut off (dashed). */
function Drawing({
  frame,
  source,
  fill,
  label,
}: {
  frame: Size;
  source: Size;
  fill: boolean;
  label: string;
}) {
  const unit = DRAWN / Math.max(frame.height, (source.height * frame.width) / source.width);
  const w = frame.width * unit;
  const h = frame.height * unit;
  const scale = (fill ? Math.max : Math.min)(w / source.width, h / source.height);
  const sw = source.width * scale;
  const sh = source.height * scale;
  const boxW = Math.max(w, sw) + 2;
  const boxH = Math.max(h, sh) + 2;
  return (
    <figure className="text-center text-xs text-ink-2">
      <svg
        width={Math.min(150, boxW)}
        viewBox={`0 0 ${boxW} ${boxH}`}
        role="img"
        aria-label={`${label}, drawn to scale`}
      >
        <defs>
          <pattern
            id={`bars-${label}`}
            width="6"
            height="6"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="6" height="6" fill="var(--paper)" />
            <line x1="0" y1="0" x2="0" y2="6" stroke="var(--ink-2)" strokeWidth="2" />
          </pattern>
        </defs>
        <rect
          x={(boxW - w) / 2}
          y={(boxH - h) / 2}
          width={w}
          height={h}
          fill={`url(#bars-${label})`}
          stroke="var(--ink)"
        />
        <rect
          x={(boxW - sw) / 2}
          y={(boxH - sh) / 2}
          width={sw}
          height={sh}
          fill="var(--lane-screen)"
          fillOpacity={fill ? 0.35 : 1}
          stroke="var(--ink-2)"
          strokeDasharray={fill ? '3 3' : undefined}
        />
        {fill && (
          <rect
            x={(boxW - w) / 2}
            y={(boxH - h) / 2}
            width={w}
            height={h}
            fill="var(--lane-screen)"
            stroke="var(--ink)"
          />
        )}
      </svg>
      <figcaption>{label}</figcaption>
    </figure>
  );
}
