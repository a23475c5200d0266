'use client';
import { Pause, Play } from 'lucide-react';
import { useRef, useState } from 'react';
import { footageUrl, type FootageView } from '@/contract/footage';
import { frameDuration, secondsToTicks, ticksToSeconds } from '@/core/time/ticks';
import { formatClock } from '@/core/time/timecode';
import { isPress } from '../../../keys/press';
import { useKeyScope } from '../../../keys/use-key-scope';
import { Button } from '../../../parts/Button';
import { Dialog } from '../../../parts/Dialog';
import { NumberField } from '../../../parts/fields';
import { IconButton } from '../../../parts/IconButton';
import { useFootageActions } from './use-footage-actions';

/** Plays a recording before it is placed; its in and out points say which part is placed. */
export function FootagePreview({
  view,
  onClose,
}: {
  view: FootageView | null;
  onClose: () => void;
}) {
  return (
    <Dialog
      open={!!view}
      onClose={onClose}
      wide
      title={view?.name ?? ''}
      description="I and O set the part that is placed, Space plays. The recording itself stays as it is."
    >
      {view?.facts && <Preview key={view.id} view={view} onClose={onClose} />}
    </Dialog>
  );
}

function Preview({ view, onClose }: { view: FootageView; onClose: () => void }) {
  const facts = view.facts!;
  const { change, place } = useFootageActions();
  const video = useRef<HTMLVideoElement>(null);
  const sound = useRef<HTMLAudioElement>(null);
  const [time, setTime] = useState(0);
  const [playing, setPlaying] = useState(false);
  const length = ticksToSeconds(facts.duration);
  const still = facts.kind === 'image';
  const from = view.inPoint === null ? 0 : ticksToSeconds(view.inPoint);
  const to = view.outPoint === null ? (still ? 5 : length) : ticksToSeconds(view.outPoint);
  const frame = facts.frameRate ? ticksToSeconds(frameDuration(facts.frameRate)) : 0.04;
  // Picture and sound are two files; the picture leads where there is one.
  const lead = () => (facts.hasVideo && !still ? video.current : sound.current);
  const seek = (seconds: number) => {
    const at = Math.min(length, Math.max(0, seconds));
    for (const element of [video.current, sound.current]) if (element) element.currentTime = at;
    setTime(at);
  };
  const play = (on: boolean) => {
    setPlaying(on);
    for (const element of [video.current, sound.current]) {
      if (!element) continue;
      if (on) void element.play().catch(() => {});
      else element.pause();
    }
  };
  const set = (point: 'inPoint' | 'outPoint') => () => {
    const at = secondsToTicks(time);
    // Past the other one, that one goes.
    const cross =
      point === 'inPoint'
        ? view.outPoint !== null && at >= view.outPoint
        : view.inPoint !== null && at <= view.inPoint;
    void change(view.id, {
      [point]: at,
      ...(cross ? { [point === 'inPoint' ? 'outPoint' : 'inPoint']: null } : {}),
    });
  };
  useKeyScope((event) => {
    if (event.target instanceof HTMLInputElement) return;
    const done = Object.entries({
      Space: () => play(!playing),
      I: set('inPoint'),
      O: set('outPoint'),
      ArrowLeft: () => seek(time - frame),
      ArrowRight: () => seek(time + frame),
      'Shift+ArrowLeft': () => seek(time - 1),
      'Shift+ArrowRight': () => seek(time + 1),
    }).find(([name]) => isPress(event, name));
    if (!done) return;
    event.preventDefault();
    done[1]();
  });
  const finish = (mode: 'insert' | 'overwrite' | 'end') => {
    if (place([view.id], mode)) onClose();
  };
  return (
    <div className="grid gap-3">
      {facts.hasVideo && (
        <video
          ref={video}
          src={footageUrl(view.id, 'proxy')}
          muted
          playsInline
          className="aspect-video w-full bg-surround"
          aria-label={`Picture of ${view.name}`}
          onTimeUpdate={(e) => setTime(e.currentTarget.currentTime)}
          onEnded={() => play(false)}
        />
      )}
      {facts.hasAudio && (
        <audio
          ref={sound}
          src={footageUrl(view.id, 'sound')}
          onTimeUpdate={(e) => lead() === e.currentTarget && setTime(e.currentTarget.currentTime)}
          onEnded={() => lead() === sound.current && play(false)}
        />
      )}
      {still ? (
        <NumberField
          label="Length"
          unit="s"
          value={Number(to.toFixed(2))}
          min={0.1}
          max={3600}
          step={0.5}
          onDone={(seconds) => void change(view.id, { outPoint: secondsToTicks(seconds) })}
        />
      ) : (
        <>
          <div className="relative h-6">
            <span className="absolute inset-x-0 top-0 h-1 bg-line" />
            <span
              className="absolute top-0 h-1 bg-action"
              style={{
                left: `${(from / length) * 100}%`,
                width: `${((to - from) / length) * 100}%`,
              }}
              data-testid="preview-part"
            />
            <input
              type="range"
              aria-label="Position"
              min={0}
              max={length}
              step={frame}
              value={time}
              onChange={(e) => seek(Number(e.target.value))}
              className="absolute inset-x-0 top-2 w-full accent-(--playhead)"
            />
          </div>
          <div className="flex flex-wrap items-center gap-2">
            <IconButton
              icon={playing ? Pause : Play}
              label={playing ? 'Pause the recording' : 'Play the recording'}
              keys="Space"
              onClick={() => play(!playing)}
            />
            <span className="numbers">
              {formatClock(time)} of {formatClock(length)}
            </span>
            <span className="flex-1" />
            <Button onClick={set('inPoint')}>In point (I)</Button>
            <Button onClick={set('outPoint')}>Out point (O)</Button>
            <Button
              look="quiet"
              disabled={view.inPoint === null && view.outPoint === null}
              onClick={() => void change(view.id, { inPoint: null, outPoint: null })}
            >
              Whole
            </Button>
          </div>
          <p className="numbers text-xs text-ink-2">
            {from.toFixed(2)} s to {to.toFixed(2)} s, {(to - from).toFixed(2)} s are placed
          </p>
        </>
      )}
      <div className="flex justify-end gap-2">
        <Button onClick={() => finish('insert')}>Insert at the playhead</Button>
        <Button onClick={() => finish('overwrite')}>Overwrite at the playhead</Button>
        <Button look="primary" onClick={() => finish('end')}>
          Place at the end
        </Button>
      </div>
    </div>
  );
}
