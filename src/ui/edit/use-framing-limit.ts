import { useMemo } from 'react';
import type { Framing } from '@/core/project/model';
import { areaOf } from '@/core/project/query';
import { framingLimit, limitsAlong } from '@/core/scene/limits';
import { sharpLimit } from '@/core/scale/sharpness';
import { useEditor } from './store';

/**
 * The sharp limit of a framing in the layouts that it is seen in; while its recording is not seen
 * at all, that of the whole picture.
 */
export function useFramingLimit(framing: Framing | undefined): number {
  const project = useEditor((s) => s.project);
  const sources = useEditor((s) => s.sources);
  const limits = useMemo(() => limitsAlong(project, sources), [project, sources]);
  const footage = framing && sources.footage[framing.footageId];
  if (!framing || !footage) return 1;
  return framingLimit(framing, limits) ?? sharpLimit(areaOf(project, footage), project.canvas);
}
