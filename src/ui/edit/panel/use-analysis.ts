import { useEffect, useState } from 'react';
import {
  cancelAnalysis,
  readAnalysis,
  requestAnalysis,
  type AgainTask,
  type AnalysisName,
  type AnalysisResults,
} from '@/contract/analyses';
import { call } from '@/contract/call';
import { tellFault } from '../../shell/notices-store';
import { useEditor } from '../store';

/** What is found out about a recording when it is asked for. */
export interface Finding {
  /** How far it is, 0 to 1; null while nothing was asked for. */
  readonly progress: number | null;
  /** Asks for it; where it has to be said what for, that goes along. */
  readonly ask: (what?: { readonly again?: AgainTask }) => void;
  readonly cancel: () => void;
}

/**
 * Asks for an analysis of a recording and hands over its result once it is there; what goes wrong
 * is told.
 */
export function useAnalysis<K extends AnalysisName>(
  footageId: string,
  kind: K,
  onFound: (result: AnalysisResults[K]) => void,
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
    call(readAnalysis, { params: { id: asked } }).then(
      // The kind that was asked for says what it is.
      (result) => onFound(result as AnalysisResults[K]),
      tellFault,
    );
  }, [asked, status, error, onFound]);
  const ask: Finding['ask'] = (what = {}) =>
    void call(requestAnalysis, { params: { id: footageId }, body: { kind, ...what } }).then(
      ({ id }) => setAsked(id),
      tellFault,
    );
  const cancel = () => {
    if (asked) void call(cancelAnalysis, { params: { id: asked } }).catch(tellFault);
  };
  return { progress: asked ? progress : null, ask, cancel };
}
