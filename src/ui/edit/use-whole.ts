import { useMemo } from 'react';
import type { InFootage } from '@/core/scale/rect';
import { areaOf } from '@/core/project/query';
import { wholeView } from '@/core/scale/sharpness';
import { useEditor } from './store';

/** The view that shows all of a recording in the frame; null while it is not known. */
export function useWhole(footageId: string | undefined): InFootage | null {
  const project = useEditor((s) => s.project);
  const footage = useEditor((s) => (footageId ? s.sources.footage[footageId] : undefined));
  return useMemo(
    () => (footage ? wholeView(areaOf(project, footage), project.canvas) : null),
    [project, footage],
  );
}
