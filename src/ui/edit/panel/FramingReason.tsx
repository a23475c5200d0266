'use client';
import { useMemo } from 'react';
import { attentionOf, type Attention } from '@/core/framing/attention';
import { isWithin } from '@/core/scale/rect';
import type { Framing } from '@/core/project/model';
import { contains } from '@/core/time/ranges';
import { ticksToSeconds } from '@/core/time/ticks';
import { formatClock, formatTimecode } from '@/core/time/timecode';
import { Button } from '../../parts/Button';
import { useSeek } from '../picture/use-player';
import { useEditor } from '../store';

const WORDS: Readonly<Record<Attention['kind'], string>> = {
  press: 'Press',
  drag: 'Drag',
  typing: 'Typing',
  scroll: 'Scrolling',
  opening: 'Opening',
  dwell: 'Pointer resting',
};

/** More than so many are counted, not listed. */
const LISTED = 12;

/** Things that were done, each with its time to go to. */
function Times({ things }: { things: readonly Attention[] }) {
  const rate = useEditor((s) => s.project.canvas.frameRate);
  const seek = useSeek();
  return (
    <ul className="flex flex-wrap gap-1">
      {things.slice(0, LISTED).map(({ kind, start }) => (
        <li key={`${kind} ${start}`}>
          <Button
            className="min-h-6 px-1.5 text-xs font-normal"
            title={`Go to ${formatTimecode(start, rate)}`}
            onClick={() => seek(start)}
          >
            {WORDS[kind]} <span className="numbers">{formatClock(ticksToSeconds(start))}</span>
          </Button>
        </li>
      ))}
      {things.length > LISTED && (
        <li className="text-xs text-ink-2">and {things.length - LISTED} more</li>
      )}
    </ul>
  );
}

/** What a framing is for: what is done in it while it rests, and what of that it leaves out. */
export function FramingReason({ framing }: { framing: Framing }) {
  const lanes = useEditor((s) => s.project.lanes);
  const sources = useEditor((s) => s.sources);
  const all = useMemo(() => attentionOf({ lanes }, sources), [lanes, sources]);
  const rest = { start: framing.start + framing.rampIn, end: framing.end };
  const during = all.filter((a) => a.footageId === framing.footageId && contains(rest, a.start));
  const seen = during.filter((a) => isWithin(a.rect, framing.rect));
  const missed = during.filter((a) => !isWithin(a.rect, framing.rect));
  if (!during.length && !framing.reason) return null;
  return (
    <section aria-label="Why" className="grid gap-1.5">
      <h3 className="text-xs font-semibold text-ink-2">Why</h3>
      {seen.length > 0 && <Times things={seen} />}
      {!seen.length && <p className="text-xs text-ink-2">Nothing is done in it while it rests.</p>}
      {missed.length > 0 && (
        <>
          <p className="text-xs text-caution">Left out, beyond its edge:</p>
          <Times things={missed} />
        </>
      )}
    </section>
  );
}
