import { useEffect, useState } from 'react';
import type { AnalysisName } from '@/server/analyses';
import type { AnalysisView } from '@/server/analyses/analyses';
import { api } from '../../shell/api';
import { tellFault } from '../../shell/notices-store';
import { useEditor } from '../store';

/** What is found out about a recording when it is asked for. */
export interface Finding {
  /** How far it is, 0 to 1; null while nothing was asked for. */
  readonly progress: number | null;
  readonly ask: () => void;
  readonly cancel: () => void;
}

/**
 * Asks for an analysis of a recording and hands over its result once it is there; what goes wrong
 * is told.
 */
export function useAnalysis<R>(
  footageId: string,
  kind: AnalysisName,
  onFound: (result: R) => void,
): Finding {
  const [asked, setAsked] = useState<string | null>(null);
  const row = useEditor((s) => s.analyses.find((a) => a.id === asked));
  const progress = useEditor((s) => s.jobs.find((j) => j.subject === asked)?.progress ?? 0);
  const status = row?.status;
  const error = row?.error;
  useEffect(() => {
    if (!asked || !status || status === 'waiting') return;
    setAsked(null);
    if (status === 'failed') {
      if (error && error !== 'Cancelled') tellFault(error);
      return;
    }
    api<R>(`/api/analyses/${asked}`).then(onFound, tellFault);
  }, [asked, status, error, onFound]);
  const ask = () =>
    void api<AnalysisView>(`/api/footage/${footageId}/analyses`, {
      method: 'POST',
      body: { kind },
    }).then(({ id }) => setAsked(id), tellFault);
  const cancel = () => {
    if (asked) void api(`/api/analyses/${asked}`, { method: 'DELETE' }).catch(tellFault);
  };
  return { progress: asked ? progress : null, ask, cancel };
}
