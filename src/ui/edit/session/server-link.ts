import type { StoreApi } from 'zustand';
import { call } from '@/contract/call';
import { readPointer, type FootageView } from '@/contract/footage';
import type { ProjectState } from '@/contract/state';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import { scaleTrack } from '@/core/telemetry/sample';
import { listen, sourcesOf } from '../server-state';
import type { EditorState } from './state';

/**
 * Keeps what is known of a project's footage, tracks, jobs and takes in step with the server.
 *
 * @param heardOf is told of each revision that the server has
 * @returns ends it
 */
export function followServer(
  store: StoreApi<EditorState>,
  heardOf: (revision: number) => void,
): () => void {
  const pointers: Record<string, PointerTrack> = {};
  const loading = new Set<string>();
  let ended = false;
  const refresh = () =>
    store.setState({ sources: sourcesOf(store.getState().footage, { ...pointers }) });

  const load = async (view: FootageView) => {
    loading.add(view.id);
    try {
      const track = await call(readPointer, { params: { id: view.id } });
      if (ended) return;
      const { width, height } = view.facts!;
      // A recording that was relinked may have another size than the one it was attached to.
      pointers[view.id] = scaleTrack(track, width, height);
      refresh();
    } catch {
      loading.delete(view.id);
    }
  };

  const take = ({ revision, name, footage, exports, jobs, takes, analyses }: ProjectState) => {
    const changed = JSON.stringify(store.getState().footage) !== JSON.stringify(footage);
    store.setState({ name, exports, jobs, takes, analyses, ...(changed ? { footage } : {}) });
    heardOf(revision);
    // A track that is being read takes the place of the one that is there.
    const reading = new Set(
      analyses.flatMap((a) =>
        a.kind === 'pointer' && a.status === 'waiting' ? [a.footageId] : [],
      ),
    );
    for (const footageId of reading) loading.delete(footageId);
    if (changed) refresh();
    for (const view of footage)
      if (view.hasPointer && view.facts && view.status === 'ready')
        if (!reading.has(view.id) && !loading.has(view.id)) void load(view);
  };

  const silence = listen(store.getState().id, take, (connected) => store.setState({ connected }));
  return () => {
    ended = true;
    silence();
  };
}
