import type { MatteSummary, MatteTask } from '@/contract/analyses';
import type { MatteOrder } from '../tools/matte';
import { byTool } from './by-tool';

/** Who is to be seen of a recording without a wall, picture by picture: a video of opacities. */
export const matte = byTool<MatteSummary>('matte', {
  says: 'Taking out the background',
  order: (facts, parameters): MatteOrder => ({ facts, task: JSON.parse(parameters) as MatteTask }),
  confidence: ({ seen }) => seen,
});
