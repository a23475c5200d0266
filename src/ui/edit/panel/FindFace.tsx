'use client';
import { useCallback } from 'react';
import { ScanFace } from 'lucide-react';
import { shownFace, type FaceBox } from '@/core/face/settle';
import { Button } from '../../parts/Button';
import { tellFault } from '../../shell/notices-store';
import { useEditor } from '../store';
import { useAnalysis } from './use-analysis';

/** Finds the face in the presenter's recording, and brings it into the middle of their shape. */
export function FindFace({ footageId }: { footageId: string }) {
  const apply = useEditor((s) => s.apply);
  const onFace = useCallback(
    (face: FaceBox | null) => {
      if (face) apply('change-presenter', { change: shownFace(face) });
      else
        tellFault(
          'No face was found in this recording. Set its position and size by hand, or choose another take.',
        );
    },
    [apply],
  );
  const face = useAnalysis(footageId, 'face', onFace);
  return face.progress === null ? (
    <Button onClick={face.ask}>
      <ScanFace size={14} aria-hidden /> Find the face
    </Button>
  ) : (
    <Button onClick={face.cancel}>Stop looking ({Math.round(face.progress * 100)} %)</Button>
  );
}
