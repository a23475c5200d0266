'use client';
import { call } from '@/contract/call';
import { changeFootage } from '@/contract/footage';
import { envelopeAt } from '@/core/audio/envelope';
import { PACE_WAYS, type PaceWay } from '@/core/edit/pace';
import { clipEnd, clockOf, ownSpeed, sourceTime } from '@/core/project/clip-time';
import { Clip, type Lane } from '@/core/project/model';
import { findClip, isPictureLane } from '@/core/project/query';
import { secondsToTicks, ticksToSeconds, TICKS_PER_SECOND, type Ticks } from '@/core/time/ticks';
import { formatTimecode, parseTimecode } from '@/core/time/timecode';
import { Button } from '../../parts/Button';
import { CheckField, NumberField, TextField } from '../../parts/fields';
import { SettingField } from '../../parts/setting-fields';
import { tellFault } from '../../shell/notices-store';
import { useRun } from '../commands/use-run';
import { playheadOf, useEditor, useEditorStore } from '../store';
import { GroupFields } from './GroupFields';
import { Heading } from './Heading';
import { LookDetails } from './LookDetails';
import { PresenterDetails } from './PresenterDetails';
import { TransitionFields } from './TransitionFields';

const PACE_LABELS: Record<PaceWay, string> = {
  stretch: 'Stretch',
  cut: 'Cut stillness',
  freeze: 'Hold the end',
};

export function ClipDetails({ id }: { id: string }) {
  const found = useEditor((s) => findClip(s.project, id));
  const footage = useEditor((s) => (found ? s.sources.footage[found.clip.footageId] : undefined));
  const run = useRun();
  if (!found) return null;
  const { clip, lane } = found;
  const picture = isPictureLane(lane);
  return (
    <div className="grid gap-3">
      <div>
        <Heading title={footage?.name ?? 'Missing footage'}>
          {clip.link && (
            <Button
              onClick={() => run('unlink')}
              title="Picture and sound of this recording then move and trim by themselves"
            >
              Unlink
            </Button>
          )}
        </Heading>
        {lane.locked && <p className="text-xs text-caution">Its lane is locked.</p>}
      </div>
      {!footage && <Missing clip={clip} />}
      {clip.group && <GroupFields groupId={clip.group} />}
      {!picture && <SoundFields clip={clip} />}
      <TimeFields clip={clip} lane={lane} />
      {clip.speed > 0 && footage?.kind !== 'image' && <SpeedFields clip={clip} lane={lane} />}
      {picture && <TransitionFields clip={clip} lane={lane} />}
      {picture && footage?.hasAudio && (
        <Button onClick={() => run('detach')} title="Its sound can then be cut without its picture">
          Sound on its own lane
        </Button>
      )}
      {picture && footage && <LookDetails footage={footage} />}
      {lane.kind === 'presenter' && <PresenterDetails footageId={clip.footageId} />}
    </div>
  );
}

/** A clip whose footage was deleted: it can come back. */
function Missing({ clip }: { clip: Clip }) {
  return (
    <div className="grid gap-2 border border-caution p-2">
      <p className="text-xs">Its recording was deleted from Footage, or is still being prepared.</p>
      <Button
        onClick={() =>
          void call(changeFootage, {
            params: { id: clip.footageId },
            body: { deleted: false },
          }).catch(tellFault)
        }
      >
        Bring the recording back
      </Button>
    </div>
  );
}

/** Where the clip stands and what it shows, as numbers, and by single frames. */
function TimeFields({ clip, lane }: { clip: Clip; lane: Lane }) {
  const rate = useEditor((s) => s.project.canvas.frameRate);
  const apply = useEditor((s) => s.apply);
  const run = useRun();
  const typed = (done: (time: Ticks) => void) => (text: string) => {
    const time = parseTimecode(text, rate);
    if (time === null) tellFault('Type a time as 12, 1:05, 12.5 or 00:00:12:04.');
    else done(time);
  };
  const nudges: readonly (readonly [string, string, string])[] = [
    ['Start', 'trim-start-back', 'trim-start-on'],
    ['End', 'trim-end-back', 'trim-end-on'],
    ['Roll', 'roll-the-cut-back', 'roll-the-cut-on'],
    ['Slip', 'slip-contents-back', 'slip-contents-on'],
    ['Slide', 'slide-clip-back', 'slide-clip-on'],
    ...(clip.link
      ? [['Shift', 'shift-against-its-links-back', 'shift-against-its-links-on'] as const]
      : []),
  ];
  return (
    <fieldset className="grid gap-1.5 border-t border-line pt-2" disabled={lane.locked}>
      <legend className="font-semibold">Time</legend>
      <TextField
        label="Begins at"
        value={formatTimecode(clip.start, rate)}
        onDone={typed((time) =>
          apply('move-things', { ids: [clip.id], by: time - clip.start, lanes: null }),
        )}
      />
      <TextField
        label="Length"
        value={formatTimecode(clip.duration, rate)}
        onDone={typed((time) =>
          apply('trim-clip', { clipId: clip.id, end: 'end', time: clip.start + time }),
        )}
      />
      {clip.speed > 0 && (
        <TextField
          label="From its footage"
          value={formatTimecode(clip.source, rate)}
          onDone={typed((time) =>
            apply('slip-clip', {
              clipId: clip.id,
              by: Math.round((time - clip.source) / clip.speed),
            }),
          )}
        />
      )}
      <div className="grid grid-cols-[7.5rem_1fr] items-start gap-x-2">
        <span className="text-ink-2">By one frame</span>
        <span className="flex flex-wrap gap-1">
          {nudges.map(([name, back, on]) => (
            <span key={name} className="inline-flex items-center border border-line">
              <button
                className="h-6 min-w-6 hover:bg-paper"
                aria-label={`${name} one frame earlier`}
                onClick={() => run(back)}
              >
                ‹
              </button>
              <span className="text-xs">{name}</span>
              <button
                className="h-6 min-w-6 hover:bg-paper"
                aria-label={`${name} one frame later`}
                onClick={() => run(on)}
              >
                ›
              </button>
            </span>
          ))}
        </span>
      </div>
    </fieldset>
  );
}

function SpeedFields({ clip, lane }: { clip: Clip; lane: Lane }) {
  const store = useEditorStore();
  const apply = useEditor((s) => s.apply);
  const run = useRun();
  const clock = clockOf(clip);
  const change = (speed: number) => apply('set-speed', { clipId: clip.id, speed });
  return (
    <fieldset className="grid gap-1.5 border-t border-line pt-2" disabled={lane.locked}>
      <legend className="font-semibold">Speed</legend>
      <NumberField
        label="Speed"
        unit="×"
        value={ownSpeed(clip)}
        min={0.1}
        max={16}
        step={0.05}
        onDone={change}
      />
      <span className="flex flex-wrap gap-1">
        {[0.5, 1, 1.5, 2, 4, 8].map((speed) => (
          <Button
            key={speed}
            aria-pressed={ownSpeed(clip) === speed}
            className="px-2 aria-pressed:border-action"
            onClick={() => change(speed)}
          >
            <span className="numbers">{speed}×</span>
          </Button>
        ))}
        <Button onClick={() => store.setState({ dialog: 'freeze' })}>Freeze frame…</Button>
      </span>
      {clock !== null && (
        <p className="flex items-center gap-2 text-xs text-ink-2">
          <span>
            Its recorder’s clock was {Math.abs(clock)} millionths too {clock > 0 ? 'slow' : 'fast'},
            which is made up for.
          </span>
          <Button className="shrink-0" onClick={() => change(1)}>
            Leave it as it was
          </Button>
        </p>
      )}
      {isPictureLane(lane) && (
        <div className="grid grid-cols-[7.5rem_1fr] items-center gap-x-2">
          <span className="text-ink-2">Pace to voice</span>
          <span className="flex flex-wrap gap-1">
            {PACE_WAYS.map((way) => (
              <Button key={way} onClick={() => run(`pace-${way}`)}>
                {PACE_LABELS[way]}
              </Button>
            ))}
          </span>
        </div>
      )}
    </fieldset>
  );
}

function SoundFields({ clip }: { clip: Clip }) {
  const store = useEditorStore();
  const apply = useEditor((s) => s.apply);
  const seconds = (ticks: Ticks) => Number(ticksToSeconds(ticks).toFixed(2));
  const point = () => {
    const playhead = playheadOf(store.getState());
    if (playhead < clip.start || playhead >= clipEnd(clip))
      return tellFault('Put the playhead on the clip first.');
    apply('set-level-point', {
      clipId: clip.id,
      time: playhead,
      level: envelopeAt(clip.envelope, sourceTime(clip, playhead)),
      reach: TICKS_PER_SECOND / 100,
    });
  };
  return (
    <fieldset className="grid gap-1.5 border-t border-line pt-2">
      <legend className="font-semibold">Sound</legend>
      <SettingField
        schema={Clip.properties.gain}
        value={clip.gain}
        onChange={(gain) => apply('set-clip-level', { clipId: clip.id, gain }, true)}
      />
      <CheckField
        label="Muted"
        value={clip.muted}
        onChange={(muted) => apply('mute-clips', { clipIds: [clip.id], muted })}
      />
      <NumberField
        label="Fade in"
        unit="s"
        value={seconds(clip.fadeIn)}
        min={0}
        max={60}
        step={0.1}
        onDone={(value) =>
          apply('set-fades', {
            clipId: clip.id,
            fadeIn: secondsToTicks(value),
            fadeOut: clip.fadeOut,
          })
        }
      />
      <NumberField
        label="Fade out"
        unit="s"
        value={seconds(clip.fadeOut)}
        min={0}
        max={60}
        step={0.1}
        onDone={(value) =>
          apply('set-fades', {
            clipId: clip.id,
            fadeIn: clip.fadeIn,
            fadeOut: secondsToTicks(value),
          })
        }
      />
      <span className="flex flex-wrap items-center gap-2">
        <Button onClick={point}>Level point at the playhead</Button>
        {clip.envelope.length > 0 && (
          <Button look="quiet" onClick={() => apply('clear-level-points', { clipId: clip.id })}>
            Remove all {clip.envelope.length}
          </Button>
        )}
      </span>
      <p className="text-xs text-ink-2">
        A double press on the clip’s line sets a point too; points are dragged.
      </p>
    </fieldset>
  );
}
