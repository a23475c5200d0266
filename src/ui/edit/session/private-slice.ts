import { nanoid } from 'nanoid';
import { readAnalysis, requestAnalysis, type PrivateData } from '@/contract/analyses';
import { call } from '@/contract/call';
import { coversFor } from '@/core/private/proposed';
import { snapToFrame } from '@/core/time/ticks';
import { tell, tellFault } from '../../shell/notices-store';
import type { Change, Get, PrivateSlice } from './state';

/** Private data that recordings show, and covers for it. */
export function privateSlice(set: Change, get: Get): PrivateSlice {
  return {
    privateData: {},
    privateAsked: {},
    async lookForPrivate(footageId, words) {
      const body = { kind: 'private' as const, words };
      const row = await call(requestAnalysis, { params: { id: footageId }, body }).catch(tellFault);
      if (!row) return;
      if (row.status === 'ready' && get().privateData[row.id])
        tell('The recording and your words are the same: nothing else is to be found.');
      set({ privateAsked: { ...get().privateAsked, [footageId]: row.id } });
    },
    async readPrivate(analysis) {
      if (get().privateData[analysis]) return;
      const found = await call(readAnalysis, { params: { id: analysis } }).catch(tellFault);
      if (!found) return;
      // The kind that was asked for says what it is.
      set({ privateData: { ...get().privateData, [analysis]: found as PrivateData } });
    },
    coverPrivate(footageId, found, places) {
      const { project, apply, followContent } = get();
      const covers = coversFor(project, footageId, found, places, nanoid);
      const callouts = covers.map(({ callout }) => callout);
      if (!callouts.length || !apply('add-callouts', { callouts })) return;
      for (const { callout, marked, stretches } of covers) {
        const { id, start, end } = callout;
        const time = snapToFrame((start + end) / 2, project.canvas.frameRate);
        void followContent(id, true, { time, also: { marked, stretches } });
      }
    },
  };
}
