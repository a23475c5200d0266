import { useEffect, useMemo } from 'react';
import { cancelAnalysis, type AnalysisView, type PrivateData } from '@/contract/analyses';
import { call } from '@/contract/call';
import { openPlaces, type OpenPlace } from '@/core/private/shown';
import { tellFault } from '../../shell/notices-store';
import { useEditor } from '../store';

/** What is known of a recording's private data. */
export interface PrivateKnown {
  /** The search that counts; null while there was none. */
  readonly row: AnalysisView | null;
  readonly data: PrivateData | null;
  /** What of it lies bare on the timeline. */
  readonly places: readonly OpenPlace[];
  readonly stop: () => void;
}

const NONE: readonly OpenPlace[] = [];

type Asked = Parameters<typeof openPlaces>;
let last: { readonly asked: Asked; readonly places: readonly OpenPlace[] } | null = null;

/** The same for all who ask for the same: the list and the marks on the Picture. */
function placesOf(...asked: Asked): readonly OpenPlace[] {
  if (!last || asked.some((value, i) => value !== last!.asked[i]))
    last = { asked, places: openPlaces(...asked) };
  return last.places;
}

/** The private data of a recording, as it was looked for last. */
export function usePrivate(footageId: string): PrivateKnown {
  const row = useEditor((s) => {
    const rows = s.analyses.filter((a) => a.kind === 'private' && a.footageId === footageId);
    return rows.find(({ id }) => id === s.privateAsked[footageId]) ?? rows.at(-1) ?? null;
  });
  const isReady = row?.status === 'ready';
  const readPrivate = useEditor((s) => s.readPrivate);
  const data = useEditor((s) => (row && isReady ? (s.privateData[row.id] ?? null) : null));
  const project = useEditor((s) => s.project);
  const sources = useEditor((s) => s.sources);
  useEffect(() => {
    if (row && isReady) void readPrivate(row.id);
  }, [row, isReady, readPrivate]);
  const places = useMemo(
    () => (data ? placesOf(project, sources, footageId, data.found) : NONE),
    [project, sources, footageId, data],
  );
  const stop = () => {
    if (row) void call(cancelAnalysis, { params: { id: row.id } }).catch(tellFault);
  };
  return { row, data, places, stop };
}
