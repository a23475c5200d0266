'use client';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { trackOf } from '@/core/project/track-of';
import { confidenceAt, PRESS_NEAR, SURE, unsureStretches } from '@/core/telemetry/correct';
import { formatClock } from '@/core/time/timecode';
import { Button } from '../../parts/Button';
import { tellFault } from '../../shell/notices-store';
import { pathHere, timeOfMs } from '../path-here';
import { useSeek } from '../picture/use-player';
import { playheadOf, useAtPlayhead, useEditor, useEditorStore } from '../store';
import { FindAgain } from './FindAgain';
import { Heading } from './Heading';

/** How the pointer's path stands at the playhead, in a sentence. */
function inWords(confidence: number | null): string {
  if (confidence === null) return 'No pointer is known of this recording. Draw its path by hand.';
  if (confidence === 0) return 'The pointer is hidden here.';
  if (confidence < SURE) return `Not sure here: ${Math.round(confidence * 100)} %.`;
  return confidence < 1 ? `Found here, ${Math.round(confidence * 100)} % sure.` : 'Known here.';
}

/** Mending the path of a recording's pointer by hand. */
export function PathDetails({ footageId }: { footageId: string }) {
  const store = useEditorStore();
  const seek = useSeek();
  const name = useEditor((s) => s.sources.footage[footageId]?.name);
  const mended = useEditor(
    (s) => s.project.corrections.find((c) => c.footageId === footageId)?.made.length ?? 0,
  );
  const drawing = useEditor((s) => s.drawing === 'path');
  const now = useAtPlayhead((s, playhead) => {
    const here = pathHere(s, footageId, playhead);
    if (!here) return null;
    const { track, ms, from, to } = here;
    return {
      confidence: track && confidenceAt(track, ms),
      pressed: !!track?.events.some((e) => e.type === 'down' && Math.abs(e.t - ms) <= PRESS_NEAR),
      ...{ ms, from, to },
    };
  });
  const apply = useEditor((s) => s.apply);
  const doubts = useEditor((s) => {
    const track = trackOf(s.project, s.sources, footageId);
    return track ? unsureStretches(track).length : 0;
  });
  const goTo = (next: boolean) => {
    const state = store.getState();
    const here = pathHere(state, footageId, playheadOf(state));
    const track = trackOf(state.project, state.sources, footageId);
    if (!here || !track) return tellFault('Put the playhead on this recording first.');
    const starts = unsureStretches(track).map(({ from }) => from);
    const found = next
      ? starts.find((t) => t > here.ms + 50)
      : starts.findLast((t) => t < here.ms - 50);
    if (found === undefined)
      return tellFault(`Nothing unsure lies ${next ? 'after' : 'before'} the playhead.`);
    seek(timeOfMs(here.clip, found));
  };
  const stretch = now && `${formatClock(now.from / 1000)} to ${formatClock(now.to / 1000)}`;
  return (
    <div className="grid gap-2">
      <Heading title="Pointer’s path" />
      <p className="text-xs text-ink-2">
        {name}. What is mended is kept beside what was found, and stays when the pointer is looked
        for again.
      </p>
      <p role="status">
        {now ? inWords(now.confidence) : 'The playhead is outside of this recording.'}
      </p>
      <div className="flex flex-wrap items-center gap-1">
        <Button onClick={() => goTo(false)} disabled={!doubts}>
          <ChevronLeft size={14} aria-hidden /> Unsure before
        </Button>
        <Button onClick={() => goTo(true)} disabled={!doubts}>
          Unsure next <ChevronRight size={14} aria-hidden />
        </Button>
        <span className="text-xs text-ink-2">
          {doubts === 1 ? '1 stretch' : `${doubts} stretches`} hidden or not sure
        </span>
      </div>
      <p className="text-xs text-ink-2">
        Drag the points on the Picture to where the pointer is. For a whole stretch, set an In and
        an Out point; without them it is the unsure stretch at the playhead, or two seconds from
        there
        {stretch ? ` (now ${stretch} of the recording)` : ''}.
      </p>
      <div className="flex flex-wrap gap-1">
        <Button
          aria-pressed={drawing}
          disabled={!now}
          onClick={() => store.setState({ drawing: drawing ? null : 'path' })}
        >
          {drawing ? 'Draw it on the Picture…' : 'Draw the path'}
        </Button>
        <FindAgain footageId={footageId} disabled={!now} />
        <Button
          disabled={!now}
          onClick={() =>
            now &&
            apply('correct-pointer', {
              footageId,
              correction: { kind: 'hidden', from: now.from, to: now.to },
            })
          }
        >
          Hidden in this stretch
        </Button>
        <Button
          disabled={!now || now.confidence === null}
          onClick={() =>
            now &&
            apply('correct-pointer', {
              footageId,
              correction: { kind: 'press', at: now.ms, on: !now.pressed },
            })
          }
        >
          {now?.pressed ? 'No press here' : 'A press here'}
        </Button>
        <Button
          disabled={!now || !mended}
          onClick={() =>
            now && apply('drop-corrections', { footageId, from: now.from, to: now.to })
          }
        >
          As it was found
        </Button>
      </div>
      <p className="text-xs text-ink-2">
        {mended === 0
          ? 'Nothing is mended yet.'
          : `${mended} ${mended === 1 ? 'thing' : 'things'} mended.`}
      </p>
    </div>
  );
}
