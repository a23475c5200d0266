import type { StoreApi } from 'zustand';
import { cancelAnalysis, readAnalysis, requestAnalysis } from '@/contract/analyses';
import { call } from '@/contract/call';
import type { FollowPath } from '@/core/callout/follow-path';
import { withStretches } from '@/core/private/everywhere';
import { followTask, NOTHING_TO_FOLLOW } from '@/core/project/follow-task';
import { tellFault } from '../../shell/notices-store';
import type { Change, EditorState, FollowSlice, Get } from './state';

/** Following what callouts mark: it is found on the server, and goes on when they are left. */
export function followSlice(set: Change, get: Get): FollowSlice {
  const without = (id: string) => {
    const { [id]: _, ...others } = get().following;
    return others;
  };
  const cancel = (analysis: string) =>
    void call(cancelAnalysis, { params: { id: analysis } }).catch(tellFault);
  return {
    following: {},
    async followContent(id, whole, { time = get().transport.getState().playhead, also } = {}) {
      const { project, sources } = get();
      const callout = project.callouts.find((one) => one.id === id);
      if (!callout) return;
      const asked = followTask(project, sources, callout, time, whole);
      if (typeof asked === 'string') return tellFault(asked);
      const { footageId, rect, ...times } = asked;
      const mine = { analysis: null, time, whole, ...(also && { also }) };
      set({ following: { ...get().following, [id]: mine } });
      try {
        const body = { kind: 'track' as const, follow: { ...rect, ...times } };
        const { id: analysis } = await call(requestAnalysis, { params: { id: footageId }, body });
        // It was given up, or asked for anew, before the server had it.
        if (get().following[id] !== mine) return cancel(analysis);
        set({ following: { ...get().following, [id]: { ...mine, analysis } } });
      } catch (error) {
        if (get().following[id] === mine) set({ following: without(id) });
        tellFault(error);
      }
    },
    stopFollowing(id) {
      const analysis = get().following[id]?.analysis;
      set({ following: without(id) });
      if (analysis) cancel(analysis);
    },
    async takeFollowed(id) {
      const asked = get().following[id];
      if (!asked?.analysis) return;
      set({ following: without(id) });
      const found = await call(readAnalysis, { params: { id: asked.analysis } }).catch(tellFault);
      if (found === undefined) return;
      // The kind that was asked for says what it is.
      const told = found as FollowPath | null;
      if (!told) return tellFault(NOTHING_TO_FOLLOW);
      const { time, whole, also } = asked;
      const path = also ? withStretches(told, also.marked, also.stretches) : told;
      // It was removed meanwhile.
      if (!get().project.callouts.some((one) => one.id === id)) return;
      get().apply('follow-content', { id, path, time, whole });
    },
  };
}

/**
 * Takes over where followed content went once it was found.
 *
 * @returns ends it
 */
export function followFindings(store: StoreApi<EditorState>): () => void {
  const look = ({ following, analyses, takeFollowed, stopFollowing }: EditorState) => {
    for (const [id, { analysis }] of Object.entries(following)) {
      const row = analysis === null ? null : analyses.find((one) => one.id === analysis);
      if (!row || row.status === 'waiting') continue;
      if (row.status === 'ready') void takeFollowed(id);
      else {
        stopFollowing(id);
        if (row.error && row.error !== 'Cancelled') tellFault(row.error);
      }
    }
  };
  return store.subscribe((now, before) => {
    if (now.following !== before.following || now.analyses !== before.analyses) look(now);
  });
}
