'use client';
import { visibleClip } from '@/core/project/query';
import { PIECE_SECONDS } from '@/core/project/stand-ins';
import { sourceTime } from '@/core/project/clip-time';
import { ticksToSeconds } from '@/core/time/ticks';
import { useEditor, useTransport } from '../store';

/** Says that the picture at the playhead is not to be seen yet, and how far it is. */
export function BeingPrepared() {
  const playhead = useTransport((t) => t.playhead);
  const waiting = useEditor((s) => {
    const { preparing = {}, footage } = s.sources;
    for (const kind of ['screen', 'presenter'] as const) {
      const clip = visibleClip(s.project, kind, playhead);
      const there = clip && preparing[clip.footageId];
      if (!clip || !there) continue;
      if (ticksToSeconds(sourceTime(clip, playhead)) < there.pieces * PIECE_SECONDS) continue;
      const share = s.jobs.find((j) => j.subject === clip.footageId)?.progress ?? 0;
      return `Preparing ${footage[clip.footageId]?.name ?? 'a recording'}, ${Math.round(share * 100)} %`;
    }
    return null;
  });
  return (
    waiting && (
      <p
        role="status"
        className="numbers absolute top-2 left-2 max-w-full truncate bg-sheet px-2 py-0.5 text-xs"
      >
        {waiting}
      </p>
    )
  );
}
