import { clipEnd } from '@/core/project/clip-time';
import type { Project } from '@/core/project/model';
import { placedSteps } from '@/core/project/query';
import { snapToFrame, type Ticks } from '@/core/time/ticks';

/** An edge meets what is so near on screen. */
export const REACH_PX = 8;

/**
 * All times that an edge may snap to: clip and span ends, steps, markers, the playhead, the start.
 */
export function snapPoints(project: Project, playhead: Ticks, but: ReadonlySet<string>): Ticks[] {
  const points = new Set<Ticks>([0, playhead]);
  for (const lane of project.lanes)
    for (const clip of lane.clips)
      if (!but.has(clip.id)) {
        points.add(clip.start);
        points.add(clipEnd(clip));
      }
  for (const list of [project.framings, project.layouts, project.pointer, project.callouts])
    for (const span of list)
      if (!but.has(span.id)) {
        points.add(span.start);
        points.add(span.end);
      }
  for (const { start } of placedSteps(project)) points.add(start);
  for (const { time, id } of project.markers) if (!but.has(id)) points.add(time);
  return [...points];
}

/**
 * The change of time for a drag, moved so that one of the dragged edges meets a
 * snap point if one is within reach, otherwise so that the first edge lies on a frame.
 */
export function snapDelta(
  edges: readonly Ticks[],
  delta: Ticks,
  points: readonly Ticks[],
  reach: Ticks,
  rate: { num: number; den: number },
): Ticks {
  let best: Ticks | null = null;
  for (const edge of edges)
    for (const point of points) {
      const off = point - (edge + delta);
      if (Math.abs(off) <= reach && (best === null || Math.abs(off) < Math.abs(best))) best = off;
    }
  if (best !== null) return delta + best;
  return snapToFrame(edges[0]! + delta, rate) - edges[0]!;
}
