import type { StoreApi } from 'zustand';
import { mattesAmong, readAnalysis } from '@/contract/analyses';
import { call } from '@/contract/call';
import { readPointer, type FootageView } from '@/contract/footage';
import type { ProjectState } from '@/contract/state';
import { same } from '@/core/schema/same';
import { usedFootage } from '@/core/project/query';
import type { PointerTrack } from '@/core/telemetry/pointer-track';
import type { ScreenSight } from '@/core/vision/screen-sight';
import { scaleTrack } from '@/core/telemetry/sample';
import { listen, sourcesOf } from '../server-state';
import type { EditorState } from './state';

/**
 * Keeps what is known of a project's footage, jobs and takes in step with the server, and reads
 * what was found of the footage that clips use: tracks can be large, and facts are enough to edit.
 *
 * @param heardOf is told of each revision that the server has
 * @returns ends it
 */
export function followServer(
  store: StoreApi<EditorState>,
  heardOf: (revision: number) => void,
): () => void {
  const pointers: Record<string, PointerTrack> = {};
  const sights: Record<string, ScreenSight> = {};
  /** Which analysis each of them is from. */
  const seen = new Map<string, string>();
  /** Tracks that are there or on their way, and for which size of their recording. */
  const loading = new Map<string, string>();
  /** Tracks that are made anew: they take the place of the ones that are there. */
  let reading: ReadonlySet<string> = new Set();
  let ended = false;
  const refresh = () =>
    store.setState({
      sources: sourcesOf(store.getState().footage, {
        pointers: { ...pointers },
        sights: { ...sights },
        mattes: mattesAmong(store.getState().analyses),
      }),
    });

  const load = async (view: FootageView, size: string) => {
    loading.set(view.id, size);
    try {
      const track = await call(readPointer, { params: { id: view.id } });
      if (ended || loading.get(view.id) !== size) return;
      const { width, height } = view.facts!;
      pointers[view.id] = scaleTrack(track, width, height);
      refresh();
    } catch {
      if (loading.get(view.id) === size) loading.delete(view.id);
    }
  };

  const loadSight = async (footageId: string, analysis: string) => {
    seen.set(footageId, analysis);
    try {
      const sight = await call(readAnalysis, { params: { id: analysis } });
      if (ended || seen.get(footageId) !== analysis) return;
      // The kind that was asked for says what it is.
      sights[footageId] = sight as ScreenSight;
      refresh();
    } catch {
      if (seen.get(footageId) === analysis) seen.delete(footageId);
    }
  };

  const loadMissing = () => {
    const { footage, project, analyses } = store.getState();
    const used = usedFootage(project.lanes);
    for (const view of footage) {
      const { id, facts, status, hasPointer } = view;
      if (!used.has(id) || !hasPointer || !facts || status !== 'ready' || reading.has(id)) continue;
      // A recording in the place of another may have another size than that, or another track.
      const track = analyses.find((a) => a.kind === 'pointer' && a.footageId === id);
      const size = `${facts.width}x${facts.height} ${track?.id}`;
      if (loading.get(id) !== size) void load(view, size);
    }
    for (const { id, kind, status, footageId } of analyses)
      if (kind === 'screen' && status === 'ready' && used.has(footageId))
        if (seen.get(footageId) !== id) void loadSight(footageId, id);
  };

  const take = ({ revision, name, footage, exports, jobs, takes, analyses }: ProjectState) => {
    const before = store.getState();
    const changed = JSON.stringify(before.footage) !== JSON.stringify(footage);
    const matted = !same(before.sources.mattes ?? {}, mattesAmong(analyses));
    store.setState({ name, exports, jobs, takes, analyses, ...(changed ? { footage } : {}) });
    heardOf(revision);
    reading = new Set(
      analyses.flatMap((a) =>
        a.kind === 'pointer' && a.status === 'waiting' ? [a.footageId] : [],
      ),
    );
    for (const footageId of reading) loading.delete(footageId);
    if (changed || matted) refresh();
    loadMissing();
  };

  const silence = listen(store.getState().id, take, (connected) => store.setState({ connected }));
  const stop = store.subscribe((now, before) => {
    if (now.project.lanes !== before.project.lanes) loadMissing();
  });
  return () => {
    ended = true;
    stop();
    silence();
  };
}
