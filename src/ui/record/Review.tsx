'use client';
import { Pause, Play, RotateCcw, Trash2, X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { takeUrl, type TakeView } from '@/contract/takes';
import { drawnAt, pointerDuring } from '@/core/take/drawn';
import { readTakeEvents } from '@/core/take/read-events';
import type { TakeEvent, TrackName } from '@/core/take/take';
import { formatClock } from '@/core/time/timecode';
import { Kbd } from '../keys/Kbd';
import { Button } from '../parts/Button';
import { DrawnShapes } from './DrawnShapes';
import { useRecordKeyNames } from './actions';
import { useRecord } from './record-store';

const OFF_BY = 0.08;
const ENDS: Record<string, string> = {
  time: 'ended after the set time',
  'sharing ended': 'ended because sharing was stopped',
  unplugged: 'ended because a device was unplugged',
  'disk full': 'ended because the disk was full',
  crashed: 'rescued after a break',
  failed: 'ended because the picture could not be encoded',
};

/** A take is played at once, and then decided on. */
export function Review() {
  const take = useRecord((s) => s.review);
  const busy = useRecord((s) => s.busy);
  const keys = useRecordKeyNames();
  const keep = useRecord((s) => s.keep);
  const discard = useRecord((s) => s.discard);
  const send = useRecord((s) => s.send);
  if (!take) return null;
  const decided = take.status === 'kept';
  return (
    <section
      aria-label="Review"
      className="row-span-2 grid min-h-0 grid-rows-[36px_minmax(0,1fr)_36px_48px]"
    >
      <header className="flex items-center justify-between border-b border-line bg-sheet px-3">
        <h2 className="font-semibold">
          Take {take.number}{' '}
          <span className="numbers font-normal text-ink-2">{formatClock(take.seconds)}</span>
          {take.reason && ENDS[take.reason] && (
            <span className="ml-2 text-xs font-normal text-caution">{ENDS[take.reason]}</span>
          )}
        </h2>
        <Button look="quiet" onClick={() => send({ type: 'leave' })}>
          <X size={14} aria-hidden /> Back to the stage
        </Button>
      </header>
      <TakePlayer key={take.id} take={take} />
      <footer className="flex items-center gap-2 border-t border-line bg-sheet px-3">
        {decided ? (
          <p className="text-ink-2">This take was kept. It can be used from the drawer below.</p>
        ) : (
          <>
            <Button look="primary" disabled={busy} onClick={() => void keep(false)}>
              {busy ? 'Keeping…' : 'Keep'}
            </Button>
            <Button disabled={busy} onClick={() => void keep(true)}>
              <RotateCcw size={14} aria-hidden /> Keep and do it again <Kbd>{keys.redo}</Kbd>
            </Button>
            <span className="flex-1" />
            <Button disabled={busy} onClick={() => void discard(take)}>
              <Trash2 size={14} aria-hidden /> Discard
            </Button>
          </>
        )}
      </footer>
    </section>
  );
}

/** Plays the tracks of a take together; the first leads, the others follow. */
function TakePlayer({ take }: { take: TakeView }) {
  const media = useRef(new Map<TrackName, HTMLMediaElement>());
  const [events, setEvents] = useState<readonly TakeEvent[]>([]);
  const [playing, setPlaying] = useState(false);
  const [ms, setMs] = useState(0);
  useEffect(() => {
    void fetch(takeUrl(take.id, 'events'))
      .then((r) => (r.ok ? r.text() : ''))
      .then((text) => setEvents(readTakeEvents(text)))
      .catch(() => undefined);
  }, [take.id]);
  const offset = (name: TrackName) => {
    const clock = events.findLast((e) => e.type === 'clock' && e.track === name);
    return clock?.type === 'clock' ? clock.offset / 1000 : 0;
  };
  const latest = useRef(offset);
  useEffect(() => {
    latest.current = offset;
  });
  const names = take.setup.tracks.map((t) => t.name);
  const lead = names.includes('voice') ? 'voice' : names[0]!;
  useEffect(() => {
    if (!playing) return;
    let frame = 0;
    const follow = () => {
      const first = media.current.get(lead);
      if (first) {
        const now = first.currentTime + latest.current(lead);
        setMs(now * 1000);
        for (const [name, element] of media.current) {
          if (name === lead) continue;
          const wanted = now - latest.current(name);
          if (wanted >= 0 && Math.abs(element.currentTime - wanted) > OFF_BY && !element.seeking)
            element.currentTime = wanted;
        }
        if (first.ended) setPlaying(false);
      }
      frame = requestAnimationFrame(follow);
    };
    frame = requestAnimationFrame(follow);
    for (const element of media.current.values()) void element.play().catch(() => undefined);
    const all = media.current;
    return () => {
      cancelAnimationFrame(frame);
      for (const element of all.values()) element.pause();
    };
  }, [playing, lead]);
  const seek = (to: number) => {
    setMs(to);
    for (const [name, element] of media.current)
      element.currentTime = Math.max(0, to / 1000 - offset(name));
  };
  const screen = take.setup.tracks.find((t) => t.name === 'screen');
  const camera = take.setup.tracks.find((t) => t.name === 'camera');
  const bind = (name: TrackName) => (element: HTMLMediaElement | null) => {
    if (element) media.current.set(name, element);
    else media.current.delete(name);
  };
  const source = (name: TrackName) => takeUrl(take.id, name);
  const pointer = pointerDuring(events, ms);
  return (
    <>
      <div className="relative flex min-h-0 items-center justify-center overflow-hidden bg-surround p-1">
        {screen && (
          <div
            className="relative max-h-full"
            style={{ aspectRatio: `${screen.width} / ${screen.height}`, width: 'min(100%, 100vh)' }}
          >
            <video
              ref={bind('screen')}
              src={source('screen')}
              muted
              playsInline
              preload="auto"
              className="block size-full"
              aria-label="Screen of the take"
            />
            <svg
              viewBox={`0 0 ${screen.width} ${screen.height}`}
              className="absolute inset-0 size-full"
              aria-hidden
            >
              <DrawnShapes drawn={drawnAt(events, ms, take.setup.hold, screen)} />
              {pointer && (
                <path
                  d="M0 0V.87L.21.68.36 1 .53.92.38.62.66.6Z"
                  transform={`translate(${pointer.x} ${pointer.y}) scale(${screen.height * 0.035})`}
                  fill="var(--ink)"
                  stroke="var(--sheet)"
                  strokeWidth="0.1"
                />
              )}
            </svg>
          </div>
        )}
        {camera && (
          <video
            ref={bind('camera')}
            src={source('camera')}
            muted
            playsInline
            preload="auto"
            aria-label="Camera of the take"
            className={`${screen ? 'absolute right-3 bottom-3 w-1/5 border-2 border-action' : 'max-h-full max-w-full'} ${take.setup.camera.mirror ? '-scale-x-100' : ''}`}
          />
        )}
        {!screen && !camera && <p className="border border-line bg-sheet px-4 py-3">Voice only</p>}
        {names.includes('voice') && (
          <audio ref={bind('voice')} src={source('voice')} preload="auto" />
        )}
        {names.includes('computer') && (
          <audio ref={bind('computer')} src={source('computer')} preload="auto" />
        )}
      </div>
      <div className="flex items-center gap-3 border-t border-line px-3">
        <Button onClick={() => setPlaying(!playing)}>
          {playing ? <Pause size={14} aria-hidden /> : <Play size={14} aria-hidden />}
          {playing ? 'Pause' : 'Play'}
        </Button>
        <input
          type="range"
          aria-label="Time in the take"
          className="flex-1 accent-(--action)"
          min={0}
          max={Math.max(1, take.seconds * 1000)}
          value={ms}
          onChange={(e) => seek(Number(e.target.value))}
        />
        <span className="numbers text-xs">
          {formatClock(ms / 1000)} / {formatClock(take.seconds)}
        </span>
      </div>
    </>
  );
}
