'use client';
import type { TSchema } from '@sinclair/typebox';
import { useShallow } from 'zustand/react/shallow';
import { kindOf } from '@/core/callout/kinds';
import type { SharedChange } from '@/core/edit/several';
import { builtInOf, LAYOUT_KINDS, LAYOUTS } from '@/core/layout/built-in';
import { ownSpeed } from '@/core/project/clip-time';
import { Clip, type Callout, type Project } from '@/core/project/model';
import { findClip, isPictureLane } from '@/core/project/query';
import { settingsOf } from '@/core/schema/setting';
import { secondsToTicks, ticksToSeconds, type Ticks } from '@/core/time/ticks';
import { Button } from '../../parts/Button';
import { CheckField, NumberField, SelectField } from '../../parts/fields';
import { SettingField } from '../../parts/setting-fields';
import { useRun } from '../commands/use-run';
import { selectedItems } from '../timeline/selecting';
import { useEditor } from '../store';
import { ArrangeButtons } from './ArrangeButtons';
import { GroupFields } from './GroupFields';
import { Heading } from './Heading';
import { LineUp } from './LineUp';

/** What is changed of the things that are selected; `run` for one of many small changes. */
type OnChange = (change: SharedChange, run?: boolean) => void;

/** What several things have in common: the value of the first, and whether others have another. */
function shared<T, V>(things: readonly T[], read: (thing: T) => V): { value: V; differ: boolean } {
  const value = read(things[0]!);
  return { value, differ: things.some((thing) => read(thing) !== value) };
}

const labelled = (label: string, differ: boolean) => (differ ? `${label} (they differ)` : label);
const seconds = (ticks: Ticks) => Number(ticksToSeconds(ticks).toFixed(2));
const chosen = <T extends { readonly id: string }>(list: readonly T[], ids: readonly string[]) =>
  list.filter(({ id }) => ids.includes(id));
const counted = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;

/** Settings that the selected things share, set for all of them in one step. */
export function SeveralDetails() {
  const project = useEditor((s) => s.project);
  const ids = useEditor(useShallow(selectedItems));
  const apply = useEditor((s) => s.apply);
  const run = useRun();
  const change: OnChange = (what, merge) => apply('change-several', { ids, change: what }, merge);
  const clips = ids.flatMap((id) => findClip(project, id) ?? []);
  const spans = {
    framings: chosen(project.framings, ids),
    callouts: chosen(project.callouts, ids),
    layouts: chosen(project.layouts, ids),
    pointer: chosen(project.pointer, ids),
  };
  const counts = [
    [clips.length, 'clip'],
    [spans.framings.length, 'framing'],
    [spans.callouts.length, 'callout or cover', 'callouts or covers'],
    [spans.layouts.length, 'layout'],
    [spans.pointer.length, 'pointer look'],
  ] as const;
  const group = clips.length ? shared(clips, ({ clip }) => clip.group) : null;
  return (
    <div className="grid gap-3">
      <div>
        <Heading title={`${ids.length} selected`}>
          {clips.length > 1 && <Button onClick={() => run('link')}>Link</Button>}
          {clips.length > 1 && !group?.value && <Button onClick={() => run('group')}>Group</Button>}
        </Heading>
        <p className="text-xs text-ink-2">
          {counts
            .filter(([n]) => n > 0)
            .map(([n, one, many]) => counted(n, one, many))
            .join(', ')}
          ; what is set here is set for all of them.
        </p>
      </div>
      {group?.value && !group.differ && <GroupFields groupId={group.value} />}
      {clips.length > 1 && <LineUp />}
      <SoundOfAll clips={clips} onChange={change} />
      <SpeedOfAll clips={clips} onChange={change} />
      <FramingsOfAll framings={spans.framings} onChange={change} />
      <CalloutsOfAll callouts={spans.callouts} onChange={change} />
      <LayoutsOfAll layouts={spans.layouts} onChange={change} />
      <FadesOfAll
        title="Pointer looks"
        things={spans.pointer}
        onFade={(fade) => change({ pointer: fade })}
      />
      <fieldset className="grid gap-1.5 border-t border-line pt-2">
        <legend className="font-semibold">All of them</legend>
        <NumberField
          label="Move by"
          unit="s"
          value={0}
          min={-36_000}
          max={36_000}
          step={0.1}
          onDone={(by) => apply('move-things', { ids, by: secondsToTicks(by), lanes: null })}
        />
        <Button onClick={() => run('lift')}>Remove all of them</Button>
      </fieldset>
    </div>
  );
}

type FoundClip = NonNullable<ReturnType<typeof findClip>>;

function SoundOfAll({ clips, onChange }: { clips: readonly FoundClip[]; onChange: OnChange }) {
  const sound = clips.filter(({ lane }) => !isPictureLane(lane)).map(({ clip }) => clip);
  if (!sound.length) return null;
  const gain = shared(sound, (c) => c.gain);
  const muted = shared(sound, (c) => c.muted);
  return (
    <>
      <fieldset className="grid gap-1.5 border-t border-line pt-2">
        <legend className="font-semibold">Sound of {counted(sound.length, 'clip')}</legend>
        <SettingField
          schema={Clip.properties.gain}
          label={labelled('Level', gain.differ)}
          value={gain.value}
          onChange={(value) => onChange({ clips: { gain: value } }, true)}
        />
        <CheckField
          label={labelled('Muted', muted.differ)}
          value={muted.value}
          onChange={(value) => onChange({ clips: { muted: value } })}
        />
      </fieldset>
      <FadesOfAll title="Fades" things={sound} onFade={(fade) => onChange({ clips: fade })} />
    </>
  );
}

/** A length of time that all of some things have. */
function SecondsOfAll<T>({
  label,
  most,
  things,
  read,
  onDone,
}: {
  label: string;
  /** The longest, in seconds. */
  most: number;
  things: readonly T[];
  read: (thing: T) => Ticks;
  onDone: (time: Ticks) => void;
}) {
  const { value, differ } = shared(things, read);
  return (
    <NumberField
      label={labelled(label, differ)}
      unit="s"
      value={seconds(value)}
      min={0}
      max={most}
      step={0.1}
      onDone={(typed) => onDone(secondsToTicks(typed))}
    />
  );
}

function FadesOfAll({
  title,
  things,
  onFade,
}: {
  title: string;
  things: readonly { readonly fadeIn: Ticks; readonly fadeOut: Ticks }[];
  onFade: (fade: { fadeIn?: Ticks; fadeOut?: Ticks }) => void;
}) {
  if (!things.length) return null;
  const field = (label: string, side: 'fadeIn' | 'fadeOut') => (
    <SecondsOfAll
      label={label}
      most={60}
      things={things}
      read={(thing) => thing[side]}
      onDone={(time) => onFade({ [side]: time })}
    />
  );
  return (
    <fieldset className="grid gap-1.5 border-t border-line pt-2">
      <legend className="font-semibold">{title}</legend>
      {field('Fade in', 'fadeIn')}
      {field('Fade out', 'fadeOut')}
    </fieldset>
  );
}

function SpeedOfAll({ clips, onChange }: { clips: readonly FoundClip[]; onChange: OnChange }) {
  const moving = clips.map(({ clip }) => clip).filter((c) => c.speed > 0);
  if (!moving.length) return null;
  const speed = shared(moving, ownSpeed);
  return (
    <fieldset className="grid gap-1.5 border-t border-line pt-2">
      <legend className="font-semibold">Speed</legend>
      <NumberField
        label={labelled('Speed', speed.differ)}
        unit="×"
        value={speed.value}
        min={0.1}
        max={16}
        step={0.05}
        onDone={(value) => onChange({ clips: { speed: value } })}
      />
    </fieldset>
  );
}

function FramingsOfAll({
  framings,
  onChange,
}: {
  framings: Project['framings'];
  onChange: OnChange;
}) {
  if (!framings.length) return null;
  const pinned = shared(framings, (f) => f.pinned);
  const ramp = (label: string, side: 'rampIn' | 'rampOut') => (
    <SecondsOfAll
      label={label}
      most={4}
      things={framings}
      read={(framing) => framing[side]}
      onDone={(time) => onChange({ framings: { [side]: time } })}
    />
  );
  return (
    <fieldset className="grid gap-1.5 border-t border-line pt-2">
      <legend className="font-semibold">{counted(framings.length, 'framing')}</legend>
      {ramp('Ramp in', 'rampIn')}
      {ramp('Ramp out', 'rampOut')}
      <CheckField
        label={labelled('Pinned', pinned.differ)}
        value={pinned.value}
        onChange={(value) => onChange({ framings: { pinned: value } })}
      />
    </fieldset>
  );
}

/** The settings that all of the callouts have, whatever their kinds. */
/** Whether two settings are one, with the same words to choose from. */
const isSame = (one: TSchema, other: TSchema | undefined): boolean =>
  one.title === other?.title && String(one.enum) === String(other?.enum);

function CalloutsOfAll({
  callouts,
  onChange,
}: {
  callouts: readonly Callout[];
  onChange: OnChange;
}) {
  const [first, ...others] = callouts;
  if (!first) return null;
  const settings = settingsOf(kindOf(first).schema).filter(
    ([name, part]) =>
      (kindOf(first).settings?.(first) ?? [name]).includes(name) &&
      others.every((c) => isSame(part, kindOf(c).schema.properties[name])),
  );
  const read = (name: string) => (c: Callout) => (c as unknown as Record<string, unknown>)[name];
  return (
    <fieldset className="grid gap-1.5 border-t border-line pt-2">
      <legend className="font-semibold">
        {counted(callouts.length, 'callout or cover', 'callouts or covers')}
      </legend>
      {callouts.length > 1 && <ArrangeButtons />}
      {settings.map(([name, part]) => {
        const { value, differ } = shared(callouts, read(name));
        return (
          <SettingField
            key={name}
            schema={part}
            label={labelled(part.title ?? name, differ)}
            value={value}
            onChange={(next, run) => onChange({ callouts: { [name]: next } }, run)}
          />
        );
      })}
      {!settings.length && (
        <p className="text-xs text-ink-2">These kinds have no setting in common.</p>
      )}
    </fieldset>
  );
}

function LayoutsOfAll({ layouts, onChange }: { layouts: Project['layouts']; onChange: OnChange }) {
  if (!layouts.length) return null;
  const kind = shared(layouts, ({ layout }) => builtInOf(layout) ?? layout.name);
  return (
    <fieldset className="grid gap-1.5 border-t border-line pt-2">
      <legend className="font-semibold">{counted(layouts.length, 'layout')}</legend>
      <SelectField
        label={labelled('Shows', kind.differ)}
        value={kind.value}
        options={[
          ...LAYOUT_KINDS.map((k) => [k as string, LAYOUTS[k].name] as const),
          ...(LAYOUT_KINDS.some((k) => k === kind.value)
            ? []
            : [[kind.value, kind.value] as const]),
        ]}
        onChange={(value) => {
          const found = LAYOUT_KINDS.find((k) => k === value);
          if (found) onChange({ layouts: { layout: structuredClone(LAYOUTS[found]) } });
        }}
      />
    </fieldset>
  );
}
