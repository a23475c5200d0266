import { hidesScreen } from '../layout/rectangles';
import { clipEnd } from '../project/clip-time';
import type { Framing, Project } from '../project/model';
import { isCrisp } from '../project/query';
import type { Sources } from '../project/sources';
import { overlaps, type Range } from '../time/ranges';
import { CRISP_SCALE } from '../scale/sharpness';
import { frontmost, sceneAt, sharpLimitIn } from './scene';

/** A stretch of the timeline with one sharp limit. */
export interface LimitStretch extends Range {
  readonly footageId: string;
  /** The largest magnification at which what is seen is still sharp. */
  readonly limit: number;
  /** The largest at which its text is rebuilt; the same as the limit where it is not. */
  readonly crisp: number;
}

/**
 * The instants at which another recording or another layout can come into sight, or a layout has
 * been reached that was gone over to.
 */
function changes(project: Project): number[] {
  const times = new Set<number>();
  for (const { start, end, glide = 0 } of project.layouts)
    for (const time of [start, end]) times.add(time).add(time + glide);
  for (const lane of project.lanes)
    if (lane.kind === 'screen' || lane.kind === 'presenter')
      for (const clip of lane.clips) times.add(clip.start).add(clipEnd(clip));
  return [...times].sort((a, b) => a - b);
}

/**
 * The sharp limits along the timeline, in order: for each stretch in which a screen recording is
 * seen, the magnification at which one of its pixels is one of the frame's, in the layout that it
 * is seen in.
 */
export function limitsAlong(project: Project, sources: Sources): LimitStretch[] {
  const times = changes(project);
  const found: { -readonly [K in keyof LimitStretch]: LimitStretch[K] }[] = [];
  for (const [i, start] of times.slice(0, -1).entries()) {
    const scene = sceneAt(project, sources, start);
    const screen = hidesScreen(scene.layout, scene.there) ? null : frontmost(scene, 'screen');
    if (!screen) continue;
    const limit = sharpLimitIn(scene, screen.footage);
    const crisp = isCrisp(project, screen.footage) ? limit * CRISP_SCALE : limit;
    const footageId = screen.footage.id;
    const end = times[i + 1]!;
    const last = found[found.length - 1];
    const same = last?.footageId === footageId && last.limit === limit && last.crisp === crisp;
    if (same && last.end === start) last.end = end;
    else found.push({ start, end, footageId, limit, crisp });
  }
  return found;
}

/**
 * The sharp limit of a framing, and how far its text is rebuilt: the least of those in the layouts
 * that it is seen in. Null while its recording is not seen at all.
 *
 * @param limits of the whole timeline, as `limitsAlong` tells them
 */
export function framingLimits(
  framing: Framing,
  limits: readonly LimitStretch[],
): Pick<LimitStretch, 'limit' | 'crisp'> | null {
  const seen = limits.filter((l) => l.footageId === framing.footageId && overlaps(l, framing));
  if (!seen.length) return null;
  return {
    limit: Math.min(...seen.map((l) => l.limit)),
    crisp: Math.min(...seen.map((l) => l.crisp)),
  };
}
