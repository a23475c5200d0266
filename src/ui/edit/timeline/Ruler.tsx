'use client';
import { formatClock } from '@/core/time/timecode';
import { useEditor } from '../store';
import { inSight, ROW, rulerStep, toPixels, toTime } from './geometry';
import { useTimeDrag } from './use-time-drag';
import { followDrag } from '../picture/drag';

interface Props {
  readonly from: number;
  readonly to: number;
  readonly onSeek: (time: number) => void;
}

/** Times along the top; pressing or dragging moves the playhead. Only what is in sight is drawn. */
export function Ruler({ from, to, onSeek }: Props) {
  const scale = useEditor((s) => s.pixelsPerSecond);
  const markers = useEditor((s) => s.project.markers);
  const chosen = useEditor((s) => (s.selection?.kind === 'marker' ? s.selection.id : null));
  const select = useEditor((s) => s.select);
  const drag = useTimeDrag();
  const step = rulerStep(scale);
  const first = Math.max(0, Math.floor(from / scale / step));
  const count = Math.ceil((to - from) / scale / step) + 2;
  const press = (event: React.PointerEvent<HTMLDivElement>) => {
    const left = event.currentTarget.getBoundingClientRect().left;
    const seek = (clientX: number) => onSeek(Math.max(0, toTime(clientX - left, scale)));
    seek(event.clientX);
    followDrag(event, (_dx, _dy, e) => seek(e.clientX));
  };
  return (
    <div className="relative h-full cursor-col-resize" onPointerDown={press} data-testid="ruler">
      {Array.from({ length: count }, (_, i) => {
        const seconds = (first + i) * step;
        return (
          <span
            key={seconds}
            className="numbers pointer-events-none absolute bottom-0 h-full border-l border-line pl-1 text-[10px] text-ink-2"
            style={{ left: seconds * scale, lineHeight: `${ROW.ruler}px` }}
          >
            {step < 1 ? seconds.toFixed(1) : formatClock(seconds)}
          </span>
        );
      })}
      {markers
        .filter((m) => inSight({ from, to }, m.time, m.time, scale))
        .map((marker) => (
          <button
            key={marker.id}
            data-marker={marker.id}
            aria-label={`Marker: ${marker.name}`}
            title={marker.name}
            className={`absolute top-0 z-10 size-3 -translate-x-1/2 ${chosen === marker.id ? 'scale-125' : ''}`}
            style={{
              left: toPixels(marker.time, scale),
              clipPath: 'polygon(0 0, 100% 0, 50% 100%)',
              backgroundColor: marker.color,
            }}
            onPointerDown={(e) =>
              drag(
                e,
                [marker.time],
                [marker.id],
                (delta) => ['move-marker', { id: marker.id, time: marker.time + delta }],
                () => {
                  onSeek(marker.time);
                  select({ kind: 'marker', id: marker.id });
                },
              )
            }
            onKeyDown={(e) => e.key === 'Enter' && select({ kind: 'marker', id: marker.id })}
          />
        ))}
    </div>
  );
}
