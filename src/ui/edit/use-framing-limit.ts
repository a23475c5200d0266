import { useMemo } from 'react';
import type { Framing } from '@/core/project/model';
import { areaOf, isCrisp } from '@/core/project/query';
import { framingLimits, limitsAlong } from '@/core/scene/limits';
import { CRISP_SCALE, sharpLimit } from '@/core/scale/sharpness';
import { useEditor } from './store';

/**
 * The sharp limit of a framing in the layouts that it is seen in, and how far text is rebuilt;
 * while its recording is not seen at all, those of the whole picture.
 */
export function useFramingLimit(framing: Framing | undefined): { limit: number; crisp: number } {
  const project = useEditor((s) => s.project);
  const sources = useEditor((s) => s.sources);
  const limits = useMemo(() => limitsAlong(project, sources), [project, sources]);
  const footage = framing && sources.footage[framing.footageId];
  if (!framing || !footage) return { limit: 1, crisp: 1 };
  const own = framingLimits(framing, limits);
  if (own) return own;
  const limit = sharpLimit(areaOf(project, footage), project.canvas);
  return { limit, crisp: isCrisp(project, footage) ? limit * CRISP_SCALE : limit };
}
