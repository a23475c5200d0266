'use client';
import {
  Camera,
  CircleCheck,
  CircleSlash,
  LoaderCircle,
  Mic,
  Monitor,
  TriangleAlert,
  Volume2,
  type LucideIcon,
} from 'lucide-react';
import type { ReactNode } from 'react';
import { MICROPHONE_MOODS, type MicrophoneMood } from '@/capture/practice/microphone';
import { inputLook } from '../parts/fields';
import type { SourceName, SourceView } from './record-state';
import { useRecord } from './record-store';
import { sizeOf } from './settings';

const STATES: Record<SourceView['state'], string> = {
  off: 'off',
  opening: 'opening…',
  ready: 'ready',
  blocked: 'blocked',
  missing: 'not plugged in',
  busy: 'not available',
  unsupported: 'not offered by this browser',
  ended: 'ended',
};

const SIZES = ['1280x720', '1920x1080', '1920x1200', '2560x1440', '1080x1920'];
const CAMERA_SIZES = ['640x480', '1280x720', '1920x1080'];
const show = (size: string) => `${sizeOf(size).width}×${sizeOf(size).height} px`;

/** Screen, camera, microphone and computer sound: on or off, which one, and how they are. */
export function SourceRows() {
  const sources = useRecord((s) => s.sources);
  const cameras = useRecord((s) => s.cameras);
  const microphones = useRecord((s) => s.microphones);
  const settings = useRecord((s) => s.settings);
  const computer = useRecord((s) => s.computer);
  const busy = useRecord((s) => s.phase !== 'ready');
  const choose = useRecord((s) => s.choose);
  const change = useRecord((s) => s.change);
  const setComputer = useRecord((s) => s.setComputer);
  const setMood = useRecord((s) => s.setMood);
  const hasSound = !!sources.screen.open?.sound;
  const resize = (name: SourceName, key: 'practiceSize' | 'cameraSize', value: string) => {
    change({ [key]: value });
    if (sources[name].open) void choose(name, sources[name].choice);
  };
  return (
    <div className="grid gap-2 border-b border-line p-3">
      <Source
        name="screen"
        title="Screen"
        icon={Monitor}
        disabled={busy}
        options={[
          ['practice', 'Practice screen (Kilnbook)'],
          ['share', 'Screen, window or tab…'],
          ['own', 'This tab'],
        ]}
      >
        {sources.screen.choice === 'practice' && (
          <Pick
            label="Practice screen size"
            value={settings.practiceSize}
            options={SIZES.map((s) => [s, show(s)])}
            disabled={busy}
            onChange={(v) => resize('screen', 'practiceSize', v)}
          />
        )}
        {sources.screen.open && sources.screen.choice !== 'practice' && (
          <p className="text-xs text-ink-2">
            {sources.screen.open.onPointer
              ? 'The pointer is recorded as data.'
              : 'This browser does not tell where the pointer is; it stays in the picture. Its path can be found later, or attached in Edit as a track.'}
          </p>
        )}
      </Source>
      <Source
        name="camera"
        title="Camera"
        icon={Camera}
        disabled={busy}
        options={[...devices(cameras, 'Camera'), ['practice', 'Practice camera']]}
      >
        {sources.camera.open && (
          <Pick
            label="Camera size"
            value={settings.cameraSize}
            options={CAMERA_SIZES.map((s) => [s, show(s)])}
            disabled={busy}
            onChange={(v) => resize('camera', 'cameraSize', v)}
          />
        )}
      </Source>
      <Source
        name="voice"
        title="Microphone"
        icon={Mic}
        disabled={busy}
        options={[...devices(microphones, 'Microphone'), ['practice', 'Practice microphone']]}
      >
        {sources.voice.choice === 'practice' && (
          <Pick
            label="Practice microphone sounds"
            value={settings.mood}
            options={MICROPHONE_MOODS.map((m) => [m, `sounds ${m}`])}
            disabled={busy}
            onChange={(v) => setMood(v as MicrophoneMood)}
          />
        )}
      </Source>
      <div className="grid grid-cols-[16px_1fr_auto] items-center gap-2">
        <Volume2 size={16} aria-hidden className="text-lane-computer" />
        <label htmlFor="computer-sound">Computer sound</label>
        <input
          id="computer-sound"
          type="checkbox"
          className="size-4 accent-(--action)"
          checked={computer}
          disabled={busy}
          onChange={(e) => setComputer(e.target.checked)}
        />
        {computer && (
          <p className="col-span-2 col-start-2 text-xs text-ink-2">
            {hasSound
              ? 'ready'
              : sources.screen.choice === 'practice'
                ? 'The practice screen makes no sound.'
                : sources.screen.open
                  ? 'not offered: what is shared came without sound. Tick “share sound” in the browser’s list.'
                  : 'comes with the screen that is shared'}
          </p>
        )}
      </div>
    </div>
  );
}

const devices = (
  list: readonly { id: string; label: string }[],
  name: string,
): [string, string][] =>
  list.length ? list.map((d) => [d.id, d.label]) : [['default', `${name} of this computer`]];

function Source({
  name,
  title,
  icon: Icon,
  options,
  disabled,
  children,
}: {
  name: SourceName;
  title: string;
  icon: LucideIcon;
  options: readonly (readonly [string, string])[];
  disabled: boolean;
  children?: ReactNode;
}) {
  const { state, message, choice } = useRecord((s) => s.sources[name]);
  const choose = useRecord((s) => s.choose);
  const fault = !['off', 'opening', 'ready'].includes(state);
  const StateIcon =
    state === 'ready'
      ? CircleCheck
      : state === 'opening'
        ? LoaderCircle
        : fault
          ? TriangleAlert
          : CircleSlash;
  return (
    <div className="grid grid-cols-[16px_1fr] items-center gap-x-2 gap-y-1">
      <Icon size={16} aria-hidden className={state === 'ready' ? 'text-action' : 'text-ink-2'} />
      <div className="flex items-center justify-between gap-2">
        <label htmlFor={`source-${name}`} className="font-semibold">
          {title}
        </label>
        <span
          role="status"
          aria-label={`${title} state`}
          className={`flex items-center gap-1 text-xs ${state === 'ready' ? 'text-good' : fault ? 'text-fault' : 'text-ink-2'}`}
        >
          <StateIcon size={12} aria-hidden />
          {STATES[state]}
        </span>
      </div>
      <select
        id={`source-${name}`}
        className={`${inputLook} col-start-2`}
        value={choice}
        disabled={disabled}
        onChange={(e) => void choose(name, e.target.value)}
      >
        <option value="off">Off</option>
        {options.map(([key, text]) => (
          <option key={key} value={key}>
            {text}
          </option>
        ))}
      </select>
      {children && <div className="col-start-2">{children}</div>}
      {message && <p className="col-start-2 text-xs text-fault">{message}</p>}
    </div>
  );
}

function Pick({
  label,
  value,
  options,
  disabled,
  onChange,
}: {
  label: string;
  value: string;
  options: readonly (readonly [string, string])[];
  disabled: boolean;
  onChange: (value: string) => void;
}) {
  return (
    <select
      aria-label={label}
      className={inputLook}
      value={value}
      disabled={disabled}
      onChange={(e) => onChange(e.target.value)}
    >
      {options.map(([key, text]) => (
        <option key={key} value={key}>
          {text}
        </option>
      ))}
    </select>
  );
}
