'use client';
import { useCallback } from 'react';
import { LocateFixed } from 'lucide-react';
import type { AnalysisResults } from '@/contract/analyses';
import { confidenceAt } from '@/core/telemetry/correct';
import { pointerAt } from '@/core/telemetry/sample';
import { Button } from '../../parts/Button';
import { tell, tellFault } from '../../shell/notices-store';
import { pathHere } from '../path-here';
import { playheadOf, useEditor, useEditorStore } from '../store';
import { useAnalysis } from './use-analysis';

/**
 * Looks for the pointer of a recording once more in a stretch, from where it was put at the
 * playhead, and mends the path by what it finds.
 */
export function FindAgain({ footageId, disabled }: { footageId: string; disabled: boolean }) {
  const store = useEditorStore();
  const apply = useEditor((s) => s.apply);
  const onFound = useCallback(
    (found: AnalysisResults['pointer-again']) => {
      if (!found)
        return tellFault(
          'Nothing that moves like a pointer was found there. Set another In and Out, or draw the path.',
        );
      const points = found.points.map(([ms, x, y]): [number, number, number] => [ms, x, y]);
      if (!apply('correct-pointer', { footageId, correction: { kind: 'path', points } })) return;
      const seconds = (points.at(-1)![0] - points[0]![0]) / 1000;
      tell(`The pointer was found again for ${seconds.toFixed(1)} s.`);
    },
    [apply, footageId],
  );
  const again = useAnalysis(footageId, 'pointer-again', onFound);
  const ask = () => {
    const state = store.getState();
    const here = pathHere(state, footageId, playheadOf(state));
    if (!here?.track || confidenceAt(here.track, here.ms) === 0)
      return tellFault('Say where the pointer is first: “Draw the path”, then press there.');
    const { track, ms, from, to } = here;
    again.ask({ again: { ...pointerAt(track, ms), ms, from: Math.min(from, ms), to } });
  };
  return again.progress === null ? (
    <Button disabled={disabled} onClick={ask}>
      <LocateFixed size={14} aria-hidden /> Find it from here
    </Button>
  ) : (
    <Button onClick={again.cancel}>Stop looking ({Math.round(again.progress * 100)} %)</Button>
  );
}
