'use client';
import { Circle, Flag, Pause, Play, Square } from 'lucide-react';
import { formatClock } from '@/core/time/timecode';
import { shownKeys } from '../keys/shown';
import { Kbd } from '../keys/Kbd';
import { Button } from '../parts/Button';
import { bytesInWords } from '../parts/bytes';
import { useRecordKeyNames } from './actions';
import { useRecord, useRecordStore } from './record-store';

/** Record, pause, mark and stop; how long it is, what room is left, and whether all is safe. */
export function TakeTransport() {
  const store = useRecordStore();
  const phase = useRecord((s) => s.phase);
  const progress = useRecord((s) => s.progress);
  const free = useRecord((s) => s.free);
  const keys = useRecordKeyNames();
  const stopAfter = useRecord((s) => s.settings.stopAfter);
  const marks = useRecord((s) => s.live.filter((e) => e.type === 'mark').length);
  const { start, stop, pause, resume, note } = store.getState();
  const running = phase === 'recording' || phase === 'paused';
  const seconds = (progress?.ms ?? 0) / 1000;
  const dropped = progress?.tracks.reduce((sum, t) => sum + t.dropped, 0) ?? 0;
  return (
    <div
      className="flex h-12 items-center gap-2 border-t border-line bg-sheet px-3"
      role="toolbar"
      aria-label="Take"
    >
      {!running ? (
        <Button
          look="primary"
          disabled={phase === 'closing'}
          onClick={() => (phase === 'countdown' ? void stop() : void start())}
          title={`Record (${shownKeys(keys.record)})`}
        >
          <Circle size={14} className="fill-playhead text-playhead" aria-hidden />
          {phase === 'countdown'
            ? 'Cancel'
            : phase === 'closing'
              ? 'Closing the take…'
              : 'Record'}{' '}
          <Kbd>{keys.record}</Kbd>
        </Button>
      ) : (
        <>
          <Button look="primary" onClick={() => void stop()}>
            <Square size={14} aria-hidden /> Stop <Kbd>{keys.record}</Kbd>
          </Button>
          <Button onClick={() => (phase === 'paused' ? void resume() : void pause())}>
            {phase === 'paused' ? <Play size={14} aria-hidden /> : <Pause size={14} aria-hidden />}
            {phase === 'paused' ? 'Resume' : 'Pause'} <Kbd>{keys.pause}</Kbd>
          </Button>
          <Button
            disabled={phase === 'paused'}
            onClick={() => note({ type: 'mark', name: `Marker ${marks + 1}` })}
          >
            <Flag size={14} aria-hidden /> Marker{marks ? ` (${marks})` : ''} <Kbd>{keys.mark}</Kbd>
          </Button>
        </>
      )}
      {running && (
        <span className="flex items-center gap-2" role="timer" aria-label="Recorded">
          <span
            className={`size-2.5 rounded-full bg-playhead ${phase === 'recording' ? 'animate-pulse' : 'opacity-30'}`}
            aria-hidden
          />
          <span className="numbers text-base" data-testid="elapsed">
            {formatClock(seconds)}
          </span>
          {stopAfter > 0 && (
            <span className="numbers text-xs text-ink-2">of {formatClock(stopAfter)}</span>
          )}
          {phase === 'paused' && <span className="text-xs text-ink-2">paused</span>}
        </span>
      )}
      <span className="flex-1" />
      {running && progress && progress.server === 'away' && (
        <span className="text-xs text-caution">
          {progress.local
            ? 'The server is away; the take is kept in this browser.'
            : 'The server is away; the take is kept in memory only.'}
        </span>
      )}
      {running && dropped > 0 && (
        <span
          className="numbers text-xs text-caution"
          title="Pictures that came faster than this computer could encode them"
        >
          {dropped} dropped
        </span>
      )}
      {free !== null && (
        <span
          className={`numbers text-xs ${free < 2e9 ? 'text-caution' : 'text-ink-2'}`}
          title="Room left on the server’s disk"
        >
          {bytesInWords(free)} free
        </span>
      )}
    </div>
  );
}
