'use client';
import { useMemo } from 'react';
import type { Project } from '@/core/project/model';
import { areaOf } from '@/core/project/query';
import type { Sources } from '@/core/project/sources';
import { magnification } from '@/core/scale/sharpness';
import { limitsAlong, type LimitStretch } from '@/core/scene/limits';
import { frontmost, sceneAt, screenOf } from '@/core/scene/scene';
import { useEditor } from '../store';
import { FramingGrips } from './FramingGrips';
import { inSight, toPixels, type Sight } from './geometry';
import { SpanView } from './SpanView';

interface Point {
  readonly time: number;
  readonly zoom: number;
}

const RAMP_POINTS = 8;

/** Magnification over time at the points that shape its curve. */
function curve(project: Project, sources: Sources, end: number): Point[] {
  const times = new Set<number>([0, end]);
  for (const framing of project.framings) {
    // One without a ramp begins or ends at once.
    times.add(Math.max(0, framing.start - 1)).add(framing.end - 1);
    for (let i = 0; i <= RAMP_POINTS; i++) {
      times.add(framing.start + Math.round((framing.rampIn * i) / RAMP_POINTS));
      times.add(framing.end - framing.rampOut + Math.round((framing.rampOut * i) / RAMP_POINTS));
    }
  }
  return [...times]
    .sort((a, b) => a - b)
    .map((time) => {
      const scene = sceneAt(project, sources, time);
      const found = frontmost(scene, 'screen');
      return { time, zoom: found ? screenOf(scene, found).magnification : 1 };
    });
}

/**
 * The graph of magnification with the sharp limit. Above it text is rebuilt, as far as that goes;
 * hatched is where the picture turns soft.
 */
export function FramingGraph({
  height,
  end,
  sight,
}: {
  height: number;
  end: number;
  sight: Sight;
}) {
  const project = useEditor((s) => s.project);
  const sources = useEditor((s) => s.sources);
  const scale = useEditor((s) => s.pixelsPerSecond);
  const points = useMemo(() => curve(project, sources, end), [project, sources, end]);
  // Clips that follow on one another with the same limit are one stretch.
  const limits = useMemo(() => limitsAlong(project, sources), [project, sources]);
  // One label is enough; it stands where there is most room for it.
  const widest = limits.reduce<LimitStretch | null>(
    (best, l) => (best && best.end - best.start >= l.end - l.start ? best : l),
    null,
  );
  const top = Math.max(
    1.5,
    ...limits.map((l) => l.limit * 1.15),
    ...points.map((p) => p.zoom * 1.1),
  );
  const y = (zoom: number) => height - 4 - ((zoom - 1) / (top - 1)) * (height - 10);
  const from = Math.max(0, sight.from);
  const width = Math.max(1, Math.min(toPixels(end, scale), sight.to) - from);
  // One point outside on each side, so that the line goes on to the edge.
  const seen = points.filter(
    (p, i) =>
      toPixels(points[i + 1]?.time ?? p.time, scale) >= from &&
      toPixels(points[i - 1]?.time ?? p.time, scale) <= from + width,
  );
  const line = seen
    .map((p) => `${(toPixels(p.time, scale) - from).toFixed(1)},${y(p.zoom).toFixed(1)}`)
    .join(' ');
  const edge = (p: Point | undefined) => (p ? (toPixels(p.time, scale) - from).toFixed(1) : '0');
  return (
    <>
      {limits
        .filter((l) => inSight(sight, l.start, l.end, scale))
        .map((stretch) => {
          const { start, end: until, limit, crisp } = stretch;
          return (
            <div
              key={start}
              className="pointer-events-none absolute"
              style={{
                left: toPixels(start, scale),
                width: toPixels(until - start, scale),
                top: 0,
                height,
              }}
            >
              <span
                className="hatched absolute inset-x-0 top-0"
                style={{ height: Math.max(0, y(Math.max(1, crisp))) }}
              />
              <span
                className="absolute inset-x-0 border-t border-dashed border-ink"
                style={{ top: y(Math.max(1, limit)) }}
              />
              {stretch === widest && (
                <span
                  className="numbers absolute right-1 bg-paper/80 px-0.5 text-[10px] leading-3 whitespace-nowrap"
                  style={{ top: Math.max(0, y(Math.max(1, limit)) - 13) }}
                >
                  sharp limit {limit.toFixed(2)}×
                </span>
              )}
            </div>
          );
        })}
      <svg
        className="pointer-events-none absolute top-0"
        style={{ left: from }}
        width={width}
        height={height}
        aria-hidden
      >
        <polygon
          points={`${edge(seen[0])},${height} ${line} ${edge(seen.at(-1))},${height}`}
          fill="var(--ink)"
          opacity={0.08}
        />
        <polyline points={line} fill="none" stroke="var(--ink)" strokeWidth={1.5} />
      </svg>
      {project.framings.map((framing) => {
        if (!inSight(sight, framing.start, framing.end, scale)) return null;
        const footage = sources.footage[framing.footageId];
        const zoom = footage
          ? magnification(framing.rect, areaOf(project, footage), project.canvas)
          : 1;
        return (
          <SpanView
            key={framing.id}
            list="framings"
            span={framing}
            label={`Framing ${zoom.toFixed(2)}×${framing.pinned ? ', pinned' : ''}`}
            color="var(--ink)"
            top={2}
            height={height - 4}
            bare
          />
        );
      })}
      <FramingGrips toY={y} toZoom={(at) => 1 + ((height - 4 - at) / (height - 10)) * (top - 1)} />
    </>
  );
}
