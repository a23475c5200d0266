'use client';
import { ScanFace } from 'lucide-react';
import type { FootageKey } from '@/core/project/model';
import { visibleClip } from '@/core/project/query';
import { sourceTime } from '@/core/project/clip-time';
import { formatTimecode } from '@/core/time/timecode';
import { Button } from '../../../parts/Button';
import { tellFault } from '../../../shell/notices-store';
import { useEditor, useEditorStore } from '../../store';
import { useMatte } from './use-matte';

/** How a presenter without a wall is told from what is behind them, and how far that is. */
export function MatteFields({
  value,
  onShot,
}: {
  value: FootageKey;
  onShot: (shot: NonNullable<FootageKey['shot']>) => void;
}) {
  const store = useEditorStore();
  const rate = useEditor((s) => s.project.canvas.frameRate);
  const { method, shot } = value;
  const matte = useMatte(value);
  const takeShot = () => {
    const { project, range } = store.getState();
    const from = range.in;
    const clip = from === null ? null : visibleClip(project, 'presenter', from);
    if (from === null || range.out === null || clip?.footageId !== value.footageId)
      return tellFault(
        'Mark In and Out on the timeline where this recording shows its background only, then press again.',
      );
    const empty = {
      start: Math.round(sourceTime(clip, from)),
      end: Math.round(sourceTime(clip, range.out)),
    };
    onShot(empty);
    matte.make({ method: 'shot', shot: empty });
  };
  const ready = method === 'person' || shot !== null;
  return (
    <>
      {method === 'shot' && (
        <>
          <p className="text-xs text-ink-2">
            {shot
              ? `The background alone: ${formatTimecode(shot.start, rate)} to ${formatTimecode(shot.end, rate)} of the recording.`
              : 'Mark In and Out where only the background is seen.'}
          </p>
          <Button onClick={takeShot}>Take it from In to Out</Button>
        </>
      )}
      {matte.state === 'making' && (
        <div className="flex items-center gap-2" role="status">
          <progress className="h-1.5 flex-1" value={matte.progress} aria-label="Taking it out" />
          <Button onClick={matte.stop}>Stop ({Math.round(matte.progress * 100)} %)</Button>
        </div>
      )}
      {ready && (matte.state === 'none' || matte.state === 'failed') && (
        <Button
          onClick={() =>
            matte.make({ method: method === 'shot' ? 'shot' : 'person', shot: shot ?? null })
          }
        >
          <ScanFace size={14} aria-hidden /> Take it out
        </Button>
      )}
      {matte.said && (
        <p className="text-xs text-caution" role="status">
          {matte.said}
        </p>
      )}
    </>
  );
}
