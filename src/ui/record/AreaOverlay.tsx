'use client';
import type { PointerEvent } from 'react';
import { followDrag } from '../edit/picture/drag';
import { tidyArea } from '@/core/scale/area';
import { useRecord, useRecordStore } from './record-store';
import { useScreenSize } from './use-screen-size';

/** Shares of a picture inside which action, and titles, are seen on every set (EBU R 95). */
const SAFE = [
  ['action-safe', 0.93],
  ['title-safe', 0.9],
] as const;

/**
 * The area on the live screen, to be dragged and sized, with its safe lines. What lies outside is
 * dimmed, not lost.
 */
export function AreaOverlay({ scale }: { scale: number }) {
  const store = useRecordStore();
  const area = useRecord((s) => s.area);
  const idle = useRecord((s) => s.phase === 'ready');
  const size = useScreenSize();
  if (!area || !size) return null;
  const drag = (event: PointerEvent, corner: boolean) => {
    event.stopPropagation();
    const from = area;
    followDrag(event, (dx, dy) => {
      const [x, y] = [dx / scale, dy / scale];
      store.setState({
        area: tidyArea(
          corner
            ? { ...from, width: from.width + x, height: from.height + y }
            : { ...from, x: from.x + x, y: from.y + y },
          size,
        ),
      });
    });
  };
  return (
    <div className="pointer-events-none absolute inset-0 z-30 overflow-hidden">
      <div
        data-testid="area"
        className="absolute border-2 border-playhead"
        style={{
          left: area.x * scale,
          top: area.y * scale,
          width: area.width * scale,
          height: area.height * scale,
          boxShadow: '0 0 0 4000px rgb(0 0 0 / 0.4)',
        }}
      >
        {SAFE.map(([name, share]) => (
          <span
            key={name}
            className="absolute border border-dashed border-ink/50"
            style={{ inset: `${((1 - share) / 2) * 100}%` }}
          >
            <span
              className={`absolute left-1 text-[9px] text-ink/70 ${name === 'title-safe' ? 'top-0' : 'bottom-0'}`}
            >
              {name}
            </span>
          </span>
        ))}
        {idle && (
          <>
            <button
              aria-label="Move the area"
              className="numbers pointer-events-auto absolute -top-0.5 left-1/2 -translate-x-1/2 cursor-move bg-playhead px-2 text-[11px] text-on-action"
              onPointerDown={(e) => drag(e, false)}
            >
              {area.width}×{area.height} px at {area.x}, {area.y}
            </button>
            <button
              aria-label="Size the area"
              className="pointer-events-auto absolute -right-1.5 -bottom-1.5 size-4 cursor-nwse-resize border-2 border-playhead bg-sheet"
              onPointerDown={(e) => drag(e, true)}
            />
          </>
        )}
      </div>
    </div>
  );
}
