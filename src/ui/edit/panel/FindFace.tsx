'use client';
import { useCallback } from 'react';
import { Locate, ScanFace } from 'lucide-react';
import type { AnalysisResults } from '@/contract/analyses';
import { shownFace, type FaceBox } from '@/core/face/settle';
import { lookOf } from '@/core/project/query';
import { Button } from '../../parts/Button';
import { tell, tellFault } from '../../shell/notices-store';
import { useEditor } from '../store';
import { useAnalysis } from './use-analysis';

const NONE =
  'No face was found in this recording. Set its position and size by hand, or choose another take.';

/**
 * Finds the face in the presenter's recording and brings it into the middle of their shape, for
 * all of the recording or going along with it.
 */
export function FindFace({ footageId }: { footageId: string }) {
  const apply = useEditor((s) => s.apply);
  const path = useEditor((s) => lookOf(s.project, footageId)?.face ?? null);
  const onFace = useCallback(
    (face: FaceBox | null) => {
      if (face) apply('change-presenter', { change: shownFace(face) });
      else tellFault(NONE);
    },
    [apply],
  );
  const onPath = useCallback(
    (found: AnalysisResults['face-path']) => {
      if (!found) return tellFault(NONE);
      apply('follow-face', { footageId, path: found.path, shown: shownFace(found.face) });
      if (!found.path.length) tell('The face stays near one place: there is nothing to follow.');
    },
    [apply, footageId],
  );
  const face = useAnalysis(footageId, 'face', onFace);
  const following = useAnalysis(footageId, 'face-path', onPath);
  const running = [face, following].find(({ progress }) => progress !== null);
  if (running)
    return (
      <Button onClick={running.cancel}>
        Stop looking ({Math.round((running.progress ?? 0) * 100)} %)
      </Button>
    );
  return (
    <>
      <span className="flex flex-wrap gap-1">
        <Button onClick={() => face.ask()}>
          <ScanFace size={14} aria-hidden /> Find the face
        </Button>
        <Button onClick={() => following.ask()}>
          <Locate size={14} aria-hidden /> Follow the face
        </Button>
      </span>
      {path && path.length > 0 && (
        <span className="flex flex-wrap items-center gap-2">
          Followed, {path.length === 1 ? 'one move' : `${path.length} moves`}
          <Button onClick={() => apply('change-look', { footageId, change: { face: null } })}>
            Stay in one place
          </Button>
        </span>
      )}
    </>
  );
}
