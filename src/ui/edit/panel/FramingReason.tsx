'use client';
import { useEffect, useState } from 'react';
import type { Attention } from '@/core/framing/attention';
import type { FramingLook, OtherView } from '@/core/framing/other-views';
import type { Framing } from '@/core/project/model';
import { ticksToSeconds } from '@/core/time/ticks';
import { formatClock, formatTimecode } from '@/core/time/timecode';
import { Button } from '../../parts/Button';
import { useSeek } from '../picture/use-player';
import { useEditor, useEditorStore } from '../store';
import { SideView } from './SideView';

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
/** While a framing is dragged it is looked at once for so many milliseconds. */
const PAUSE_MS = 150;

/** Things that were done, each with its time to go to. */
function Times({ things }: { things: readonly Attention[] }) {
  const rate = useEditor((s) => s.project.canvas.frameRate);
  const seek = useSeek();
  return (
    <ul className="flex flex-wrap gap-1">
      {things.slice(0, LISTED).map(({ kind, start }, i) => (
        <li key={`${kind} ${start} ${i}`}>
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

/**
 * What is found of a framing, away from the page's own thread; the last that was found meanwhile.
 */
function useLook(framing: Framing): FramingLook | null {
  const store = useEditorStore();
  const lanes = useEditor((s) => s.project.lanes);
  const layouts = useEditor((s) => s.project.layouts);
  const sources = useEditor((s) => s.sources);
  const taste = useEditor((s) => s.taste);
  const [look, setLook] = useState<{ readonly id: string; readonly found: FramingLook } | null>(
    null,
  );
  useEffect(() => {
    let over = false;
    const timer = setTimeout(
      () =>
        void store
          .getState()
          .lookAtFraming(framing)
          .then((found) => {
            if (!over && found) setLook({ id: framing.id, found });
          }),
      PAUSE_MS,
    );
    return () => {
      over = true;
      clearTimeout(timer);
    };
  }, [store, framing, lanes, layouts, sources, taste]);
  return look?.id === framing.id ? look.found : null;
}

/** By so much, as shares of the view, another one is told as closer, wider, or elsewhere. */
const CLOSER = 1.06;
const ASIDE = 0.06;

/** Where another view lies beside the present one, in words. */
function wordsOf({ rect }: OtherView, now: Framing['rect']): string {
  const size = now.width / rect.width;
  const across = (rect.x + rect.width / 2 - now.x - now.width / 2) / now.width;
  const down = (rect.y + rect.height / 2 - now.y - now.height / 2) / now.height;
  const words = [
    ...(size > CLOSER ? ['closer'] : size < 1 / CLOSER ? ['wider'] : []),
    ...(down < -ASIDE ? ['higher'] : down > ASIDE ? ['lower'] : []),
    ...(across < -ASIDE ? ['further left'] : across > ASIDE ? ['further right'] : []),
  ];
  return words.join(', ') || 'a little beside';
}

/** Views that the framing could have instead, to be tried by a press. */
function Others({ framing, views }: { framing: Framing; views: readonly OtherView[] }) {
  const apply = useEditor((s) => s.apply);
  return (
    <>
      <p className="text-xs text-ink-2">Other views for the same:</p>
      <ul className="flex flex-wrap gap-1">
        {views.map((view, i) => (
          <li key={`${view.rect.x} ${view.rect.y} ${view.rect.width}`}>
            <Button
              className="min-h-6 px-1.5 text-xs font-normal"
              onClick={() =>
                apply('change-framing', {
                  ...{ id: framing.id, change: { rect: { ...view.rect }, pinned: true } },
                })
              }
            >
              <span>
                {i === 0 ? 'Next best: ' : ''}
                {wordsOf(view, framing.rect)},{' '}
                <span className="numbers">{view.magnification.toFixed(2)}×</span>
                {view.seen < view.of && `, ${view.seen} of ${view.of}`}
              </span>
            </Button>
          </li>
        ))}
      </ul>
    </>
  );
}

/** What a framing is for: what is done in it while it rests, and what of that it leaves out. */
export function FramingReason({ framing }: { framing: Framing }) {
  const look = useLook(framing);
  return (
    <section aria-label="Why" className="grid gap-1.5 border-t border-line pt-2">
      <h3 className="text-xs font-semibold text-ink-2">Why</h3>
      <div className="flex flex-wrap items-start gap-3">
        <SideView otherwise={framing.start + framing.rampIn} />
        <div className="grid min-w-40 flex-1 gap-1.5">
          {look && look.seen.length > 0 && <Times things={look.seen} />}
          {look && !look.seen.length && (
            <p className="text-xs text-ink-2">Nothing is done in it while it rests.</p>
          )}
          {look && look.missed.length > 0 && (
            <>
              <p className="text-xs text-caution">Left out, beyond its edge:</p>
              <Times things={look.missed} />
            </>
          )}
          {look && look.others.length > 0 && <Others framing={framing} views={look.others} />}
        </div>
      </div>
    </section>
  );
}
