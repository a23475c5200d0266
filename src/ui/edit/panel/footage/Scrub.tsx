'use client';
import { useState } from 'react';
import { footageUrl, type FootageView } from '@/contract/footage';
import { thumbCount } from '@/core/project/stand-ins';
import { ticksToSeconds } from '@/core/time/ticks';
import { formatClock } from '@/core/time/timecode';

/** A picture of a recording; moving over it goes through the recording. */
export function Scrub({ view, height }: { view: FootageView; height: number }) {
  const [share, setShare] = useState<number | null>(null);
  const { facts } = view;
  const ready = view.standIns.parts.includes('thumbs');
  const width = Math.round((height * 16) / 9);
  const seconds = facts ? ticksToSeconds(facts.duration) : 0;
  const count = facts?.kind === 'image' ? 1 : thumbCount(seconds || 1);
  const each = facts?.hasVideo ? (height * facts.width) / facts.height : width;
  const index = share === null ? 0 : Math.min(count - 1, Math.floor(share * count));
  return (
    <span
      className="relative block shrink-0 overflow-hidden border border-line bg-surround/30"
      style={{ width, height }}
      onPointerMove={(e) => {
        const box = e.currentTarget.getBoundingClientRect();
        if (ready && count > 1)
          setShare(Math.min(1, Math.max(0, (e.clientX - box.left) / box.width)));
      }}
      onPointerLeave={() => setShare(null)}
      data-scrub={view.id}
    >
      {ready ? (
        <span
          className="absolute inset-y-0"
          style={{
            left: (width - each) / 2,
            width: each,
            backgroundImage: `url(${footageUrl(view.id, 'thumbs')})`,
            backgroundSize: `${each * count}px ${height}px`,
            backgroundPosition: `${-index * each}px 0`,
          }}
        />
      ) : (
        <span className="absolute inset-0 flex items-center justify-center text-[10px] text-ink">
          {facts?.kind === 'audio' ? 'sound' : ''}
        </span>
      )}
      {share !== null && (
        <>
          <span
            className="absolute inset-y-0 w-px bg-playhead"
            style={{ left: `${share * 100}%` }}
          />
          <span className="numbers absolute right-0 bottom-0 bg-ink px-0.5 text-[10px] leading-3 text-paper">
            {formatClock(share * seconds)}
          </span>
        </>
      )}
    </span>
  );
}
