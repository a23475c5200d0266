'use client';
import { useLayoutEffect, useRef, useState, type KeyboardEvent, type RefObject } from 'react';
import { projectDuration } from '@/core/project/query';
import { followDrag } from '../picture/drag';
import { useEditor, useTransport } from '../store';
import { HEADER_WIDTH, toPixels } from './geometry';
import { useColors } from './use-colors';

const HEIGHT = 14;
/** An arrow scrolls by so much of what is in sight. */
const SCROLL_SHARE = 0.2;

/** What of the timeline is in sight, as shares of its whole width. */
interface Window {
  readonly from: number;
  readonly to: number;
}

/**
 * The whole timeline in a thin strip, with the part that is in sight: dragged, pressed or moved with
 * the arrow keys it scrolls. It is there only while not all is in sight.
 */
export function Overview({ scroller }: { scroller: RefObject<HTMLDivElement | null> }) {
  const lanes = useEditor((s) => s.project.lanes);
  const end = useEditor((s) => projectDuration(s.project));
  const scale = useEditor((s) => s.pixelsPerSecond);
  const colors = useColors();
  const strip = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [width, setWidth] = useState(0);
  const [shown, setShown] = useState<Window>({ from: 0, to: 1 });
  useLayoutEffect(() => {
    const element = scroller.current!;
    const look = () => {
      const whole = element.scrollWidth - HEADER_WIDTH;
      const room = element.clientWidth - HEADER_WIDTH;
      setWidth(element.clientWidth - HEADER_WIDTH);
      setShown({
        from: element.scrollLeft / whole,
        to: Math.min(1, (element.scrollLeft + room) / whole),
      });
    };
    look();
    const observer = new ResizeObserver(look);
    observer.observe(element);
    element.addEventListener('scroll', look, { passive: true });
    return () => {
      observer.disconnect();
      element.removeEventListener('scroll', look);
    };
  }, [scroller, scale, end]);
  const scrolls = shown.to - shown.from < 0.999;
  // What the strip stands for is as wide as the timeline, with the room after its end.
  const whole = width / (shown.to - shown.from || 1);
  const ratio = width / whole;
  useLayoutEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    context.clearRect(0, 0, width, HEIGHT);
    const filled = lanes.filter((lane) => lane.clips.length);
    const each = (HEIGHT - 2) / (filled.length || 1);
    filled.forEach((lane, row) => {
      context.fillStyle = colors(`lane-${lane.kind}`);
      context.globalAlpha = lane.off ? 0.3 : 0.7;
      for (const { start, duration } of lane.clips)
        context.fillRect(
          toPixels(start, scale) * ratio,
          1 + row * each,
          Math.max(0.5, toPixels(duration, scale) * ratio - 0.5),
          Math.max(1, each - 1),
        );
    });
  }, [lanes, width, scale, ratio, colors, scrolls]);
  if (!scrolls) return null;
  const scrollTo = (share: number) => {
    const element = scroller.current!;
    element.scrollLeft = share * (element.scrollWidth - HEADER_WIDTH);
  };
  const press = (event: React.PointerEvent) => {
    const at = (event.clientX - strip.current!.getBoundingClientRect().left) / width;
    const half = (shown.to - shown.from) / 2;
    const inside = at >= shown.from && at <= shown.to;
    const from = inside ? shown.from : at - half;
    if (!inside) scrollTo(from);
    followDrag(event, (dx) => scrollTo(from + dx / width));
  };
  const onKey = (event: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    scrollTo(shown.from + by * SCROLL_SHARE * (shown.to - shown.from));
  };
  return (
    <div className="flex border-t border-line bg-paper" style={{ height: HEIGHT }}>
      <span className="shrink-0 border-r border-line" style={{ width: HEADER_WIDTH }} />
      <div
        ref={strip}
        role="scrollbar"
        tabIndex={0}
        aria-label="The whole timeline"
        aria-controls="timeline-lanes"
        aria-orientation="horizontal"
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={Math.round((shown.from / (1 - (shown.to - shown.from) || 1)) * 100)}
        title="The whole timeline: drag what is in sight"
        data-testid="overview"
        className="relative touch-none"
        style={{ width }}
        onPointerDown={press}
        onKeyDown={onKey}
      >
        <canvas ref={canvas} width={width} height={HEIGHT} className="absolute inset-0" />
        <Here pixels={(time) => toPixels(time, scale) * ratio} />
        <span
          className="absolute inset-y-0 cursor-grab border-x-2 border-action bg-action/15"
          style={{ left: shown.from * width, width: Math.max(6, (shown.to - shown.from) * width) }}
        />
      </div>
    </div>
  );
}

/** The playhead in the strip. */
function Here({ pixels }: { pixels: (time: number) => number }) {
  const playhead = useTransport((t) => t.playhead);
  return (
    <span className="absolute inset-y-0 w-px bg-playhead" style={{ left: pixels(playhead) }} />
  );
}
