'use client';
import { useMemo } from 'react';
import { viewAt } from '@/core/framing/view';
import type { Clip, Project } from '@/core/project/model';
import { areaOf, visibleClip } from '@/core/project/query';
import type { Sources } from '@/core/project/sources';
import { magnification, sharpLimit } from '@/core/scale/sharpness';
import { useEditor } from '../store';
import { toPixels } from './geometry';
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
    for (let i = 0; i <= RAMP_POINTS; i++) {
      times.add(framing.start + Math.round((framing.rampIn * i) / RAMP_POINTS));
      times.add(framing.end - framing.rampOut + Math.round((framing.rampOut * i) / RAMP_POINTS));
    }
  }
  return [...times]
    .sort((a, b) => a - b)
    .map((time) => {
      const clip = visibleClip(project, 'screen', time);
      const footage = clip && sources.footage[clip.footageId];
      if (!footage?.hasVideo) return { time, zoom: 1 };
      const area = areaOf(project, footage);
      return { time, zoom: magnification(viewAt(project.framings, footage.id, area, project.canvas, time).rect, area, project.canvas) };
    });
}

/** The graph of magnification with the sharp limit; above it the picture turns soft. */
export function FramingGraph({ height, end }: { height: number; end: number }) {
  const project = useEditor((s) => s.project);
  const sources = useEditor((s) => s.sources);
  const scale = useEditor((s) => s.pixelsPerSecond);
  const points = useMemo(() => curve(project, sources, end), [project, sources, end]);
  const screens = project.lanes.filter((l) => l.kind === 'screen').flatMap((l) => l.clips);
  const limits = screens.flatMap((clip) => {
    const footage = sources.footage[clip.footageId];
    return footage?.hasVideo ? [{ clip, limit: sharpLimit(areaOf(project, footage), project.canvas) }] : [];
  });
  // One label is enough; it stands where there is most room for it.
  const widest = limits.reduce<Clip | null>((best, { clip }) => (best && best.duration >= clip.duration ? best : clip), null);
  const top = Math.max(1.5, ...limits.map((l) => l.limit * 1.15), ...points.map((p) => p.zoom * 1.1));
  const y = (zoom: number) => height - 4 - ((zoom - 1) / (top - 1)) * (height - 10);
  const line = points.map((p) => `${toPixels(p.time, scale).toFixed(1)},${y(p.zoom).toFixed(1)}`).join(' ');
  const width = Math.max(1, toPixels(end, scale));
  return (
    <>
      {limits.map(({ clip, limit }) => (
        <div
          key={clip.id}
          className="pointer-events-none absolute"
          style={{ left: toPixels(clip.start, scale), width: toPixels(clip.duration, scale), top: 0, height }}
        >
          <span className="hatched absolute inset-x-0 top-0" style={{ height: Math.max(0, y(Math.max(1, limit))) }} />
          <span className="absolute inset-x-0 border-t border-dashed border-ink" style={{ top: y(Math.max(1, limit)) }} />
          {clip === widest && (
            <span
              className="numbers absolute right-1 bg-paper/80 px-0.5 text-[10px] leading-3 whitespace-nowrap"
              style={{ top: Math.max(0, y(Math.max(1, limit)) - 13) }}
            >
              sharp limit {limit.toFixed(2)}×
            </span>
          )}
        </div>
      ))}
      <svg className="pointer-events-none absolute top-0 left-0" width={width} height={height} aria-hidden>
        <polygon points={`0,${height} ${line} ${width},${height}`} fill="var(--ink)" opacity={0.08} />
        <polyline points={line} fill="none" stroke="var(--ink)" strokeWidth={1.5} />
      </svg>
      {project.framings.map((framing) => {
        const footage = sources.footage[framing.footageId];
        const zoom = footage ? magnification(framing.rect, areaOf(project, footage), project.canvas) : 1;
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
    </>
  );
}
