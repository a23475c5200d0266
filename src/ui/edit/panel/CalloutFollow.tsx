'use client';
import { Eye, EyeOff, Pin, Route } from 'lucide-react';
import { useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import {
  isOfAnother,
  shiftAt,
  shiftsAround,
  timeInSight,
  type FollowPath,
} from '@/core/callout/follow-path';
import { kindOf } from '@/core/callout/kinds';
import { sourceMs } from '@/core/project/clip-time';
import type { Callout } from '@/core/project/model';
import { screenClipAt } from '@/core/project/query';
import { footageOf } from '@/core/project/sources';
import { ticksToSeconds } from '@/core/time/ticks';
import { Button } from '../../parts/Button';
import { CheckField } from '../../parts/fields';
import { wayStretch } from '../mend-way';
import { useEditor, useTransport } from '../store';

const seconds = (ms: number) => `${(ms / 1000).toFixed(1)} s`;

/** Has a callout go along with what it marks, and tells how far that was found. */
export function CalloutFollow({ callout }: { callout: Callout }) {
  const { id, anchor } = callout;
  const isCover = kindOf(callout).level === 'cover';
  // What is private is to be hidden for as long as it is seen; other things have their time.
  const [whole, setWhole] = useState(isCover);
  const following = useEditor((s) => s.following[id]);
  const progress = useEditor(
    (s) => s.jobs.find((job) => job.subject === s.following[id]?.analysis)?.progress ?? 0,
  );
  const followContent = useEditor((s) => s.followContent);
  const stopFollowing = useEditor((s) => s.stopFollowing);
  if (anchor.to !== 'footage' && anchor.to !== 'track') return null;
  const isOn = anchor.to === 'track';
  return (
    <fieldset className="grid gap-2 border-t border-line pt-2">
      <legend className="sr-only">Going along</legend>
      {isOn ? (
        <Followed callout={callout} path={anchor.path} footageId={anchor.footageId} />
      ) : (
        <p className="text-xs text-ink-2">
          It can go along with what it lies on when the page is scrolled, magnified or hidden, or a
          window moves.
        </p>
      )}
      <CheckField label="As long as it is seen" value={whole} onChange={setWhole} />
      {following ? (
        <div className="grid gap-1">
          <progress
            className="h-1.5 w-full"
            value={progress}
            max={1}
            aria-label="How much of the recording was looked through"
          />
          <Button onClick={() => stopFollowing(id)}>
            Stop looking ({Math.round(progress * 100)} %)
          </Button>
        </div>
      ) : (
        <Button onClick={() => void followContent(id, whole)}>
          <Route size={14} aria-hidden /> {isOn ? 'Go along again from here' : 'Go along with it'}
        </Button>
      )}
    </fieldset>
  );
}

/** What was found of the content that a callout goes along with. */
function Followed({
  callout,
  path,
  footageId,
}: {
  callout: Callout;
  path: FollowPath;
  footageId: string;
}) {
  const { id } = callout;
  const isCover = kindOf(callout).level === 'cover';
  const apply = useEditor((s) => s.apply);
  const footage = useEditor((s) => footageOf(s.sources, footageId));
  const playhead = useTransport((t) => t.playhead);
  const clip = useEditor((s) => screenClipAt(s.project, footageId, playhead));
  const ms = clip && sourceMs(clip, playhead);
  const length = footage && ticksToSeconds(footage.duration) * 1000;
  const isStale = footage && length !== null && isOfAnother(path, { ...footage, length });
  return (
    <>
      <p className="text-xs text-ink-2">
        Goes along with what it marks: in sight for {seconds(timeInSight(path))} of the{' '}
        {seconds(path.to - path.from)} that were looked through.
        {ms !== null && ` ${hereOf(path, ms, isCover)}`}
      </p>
      {isStale && (
        <p className="text-xs text-caution" role="status">
          The recording is another one since then. Go to where it lies right, and let it go along
          again.
        </p>
      )}
      <MendWay callout={callout} path={path} />
      <Button onClick={() => apply('rest-callout', { id, time: playhead })}>
        <Pin size={14} aria-hidden /> Stay where it is
      </Button>
    </>
  );
}

/** Mends by hand where a callout goes along, at the playhead. */
function MendWay({ callout, path }: { callout: Callout; path: FollowPath }) {
  const { id } = callout;
  const apply = useEditor((s) => s.apply);
  const set = useEditor((s) => s.set);
  const mends = useEditor((s) => s.mendsWay);
  const playhead = useTransport((t) => t.playhead);
  const stretch = useEditor(useShallow((s) => wayStretch(s, callout, playhead)));
  if (!stretch) return null;
  const { from, to } = stretch;
  const isShown = shiftAt(path, from)?.sure ?? false;
  return (
    <>
      <CheckField
        label="Dragging mends its way here"
        value={mends}
        onChange={(mendsWay) => set({ mendsWay })}
      />
      <p className="numbers text-xs text-ink-2">
        Here is {(from / 1000).toFixed(2)} to {(to / 1000).toFixed(2)} s of the recording. Set the
        in and the out point for another stretch.
      </p>
      <div className="flex flex-wrap gap-2">
        {!isShown && (
          <Button onClick={() => apply('show-followed', { id, from, to })}>
            <Eye size={14} aria-hidden /> In sight here
          </Button>
        )}
        {shiftAt(path, from) && (
          <Button onClick={() => apply('hide-followed', { id, from, to })}>
            <EyeOff size={14} aria-hidden /> Not in sight here
          </Button>
        )}
      </div>
    </>
  );
}

/** Whether followed content is seen at an instant, in a sentence. */
function hereOf(path: FollowPath, ms: number, isCover: boolean): string {
  const places = shiftsAround(path, ms).length;
  if (ms < path.from || ms > path.to)
    return places
      ? 'Here nobody looked: it stays at the last place.'
      : 'Here nobody looked, and nothing is drawn.';
  if (shiftAt(path, ms)?.sure) return 'Here it is in sight.';
  if (places)
    return isCover
      ? 'Here it may be hidden: it is covered to be safe.'
      : 'Here it may be hidden, and nothing is drawn.';
  return 'Here it is out of sight.';
}
