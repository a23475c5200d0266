'use client';
import { formatClock } from '@/core/time/timecode';
import { snapToFrame } from '@/core/time/ticks';
import { useEditor, useEditorStore } from '../store';
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
  const store = useEditorStore();
  const range = useEditor((s) => s.range);
  const step = rulerStep(scale);
  const first = Math.max(0, Math.floor(from / scale / step));
  const count = Math.ceil((to - from) / scale / step) + 2;
  const press = (event: React.PointerEvent<HTMLDivElement>) => {
    const left = event.currentTarget.getBoundingClientRect().left;
    const seek = (clientX: number) => onSeek(Math.max(0, toTime(clientX - left, scale)));
    if (event.shiftKey) return spanRange(event, left);
    seek(event.clientX);
    followDrag(event, (_dx, _dy, e) => seek(e.clientX));
  };
  /** With Shift a range is drawn, on whole frames. */
  const spanRange = (event: React.PointerEvent, left: number) => {
    const at = (clientX: number) =>
      snapToFrame(
        Math.max(0, toTime(clientX - left, scale)),
        store.getState().project.canvas.frameRate,
      );
    const from = at(event.clientX);
    followDrag(event, (_dx, _dy, { clientX }) => {
      const to = at(clientX);
      store.setState({
        range: { in: Math.min(from, to), out: Math.max(from, to) },
        ...{ selection: null, also: [] },
      });
    });
  };
  /** An end of the range is pulled. */
  const pullRange = (end: 'in' | 'out') => (event: React.PointerEvent) => {
    const { range, project } = store.getState();
    const from = range[end]!;
    followDrag(event, (dx) => {
      const to = snapToFrame(Math.max(0, from + toTime(dx, scale)), project.canvas.frameRate);
      const other = range[end === 'in' ? 'out' : 'in'];
      if (other !== null && (end === 'in' ? to >= other : to <= other)) return;
      store.setState({ range: { ...range, [end]: to } });
    });
  };
  return (
    <div
      className="relative h-full touch-none cursor-col-resize"
      onPointerDown={press}
      data-testid="ruler"
      title="Drag to move the playhead; with Shift, to set a range"
    >
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
      {(['in', 'out'] as const).map((end) => {
        const time = range[end];
        return (
          time !== null && (
            <span
              key={end}
              data-testid={`range-${end}`}
              title={end === 'in' ? 'In point: drag it' : 'Out point: drag it'}
              className="absolute inset-y-0 z-10 w-2 cursor-ew-resize bg-action pointer-coarse:w-4"
              style={{ left: toPixels(time, scale) - (end === 'in' ? 0 : 8) }}
              onPointerDown={pullRange(end)}
            />
          )
        );
      })}
      {markers
        .filter((m) => inSight({ from, to }, m.time, m.time, scale))
        .map((marker) => (
          <button
            key={marker.id}
            data-marker={marker.id}
            tabIndex={chosen === marker.id ? 0 : -1}
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
