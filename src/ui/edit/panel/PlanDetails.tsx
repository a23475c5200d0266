'use client';
import { LoaderCircle, Waypoints } from 'lucide-react';
import { canPlan } from '@/core/framing/doings';
import { summarise } from '@/core/framing/summary';
import { Taste } from '@/core/framing/taste';
import type { Framing } from '@/core/project/model';
import { projectDuration } from '@/core/project/query';
import { ticksToSeconds } from '@/core/time/ticks';
import { Button } from '../../parts/Button';
import { SelectField, SliderField } from '../../parts/fields';
import { SavedPresets } from '../../presets/SavedPresets';
import { SettingFields } from '../../parts/setting-fields';
import type { PlanScope } from '../session/state';
import { rangeOf, useEditor } from '../store';
import { Heading } from './Heading';

const SCOPES: readonly (readonly [PlanScope, string])[] = [
  ['project', 'Whole project'],
  ['step', 'The step at the playhead'],
];

const CLOSEST_VIEWS = [
  ['sharp', 'The sharp limit'],
  ['rebuilt', 'As far as text is rebuilt'],
  ['custom', 'Custom'],
] as const;
/** The closest view when it is left to neither limit, to begin with. */
const CLOSEST = 2;

/** How many framings there are, and how restless they are. */
function describe(framings: readonly Framing[], seconds: number): string {
  const { count, movesAMinute, shortest } = summarise(framings, seconds);
  if (!count) return 'No framings: the whole screen is shown all the time.';
  const many = count === 1 ? '1 framing' : `${count} framings`;
  return `${many}, ${movesAMinute.toFixed(1)} moves a minute, the shortest rests ${shortest.toFixed(1)} s.`;
}

/** How framings are planned: each change plans anew. */
export function PlanDetails() {
  const taste = useEditor((s) => s.taste);
  const scope = useEditor((s) => s.planScope);
  const hasRange = useEditor((s) => rangeOf(s) !== null);
  const planning = useEditor((s) => s.planning);
  const plan = useEditor((s) => s.planFramings);
  const framings = useEditor((s) => s.project.framings);
  const seconds = useEditor((s) => ticksToSeconds(projectDuration(s.project)));
  const hasTrack = useEditor((s) => canPlan(s.sources));
  const change = (next: Partial<Taste>) => void plan({ taste: next });
  // One that was chosen stays in the list when the range is gone.
  const scopes =
    hasRange || scope === 'range' ? [...SCOPES, ['range', 'The range'] as const] : SCOPES;
  if (!hasTrack)
    return (
      <div className="grid gap-2">
        <Heading title="Plan framings" />
        <p className="text-caution">
          Nothing is known yet of what is done on the screen. Press “Find the pointer” in the
          details of a screen recording in Footage, or attach a pointer track there.
        </p>
      </div>
    );
  return (
    <div className="grid gap-2">
      <Heading title="Plan framings" />
      <SettingFields schema={Taste} value={taste} onChange={change} />
      <SelectField
        label="Closest view"
        value={typeof taste.limit === 'number' ? 'custom' : (taste.limit ?? 'sharp')}
        options={CLOSEST_VIEWS}
        onChange={(to) =>
          change({ limit: to === 'custom' ? CLOSEST : to === 'rebuilt' ? 'rebuilt' : null })
        }
      />
      {typeof taste.limit === 'number' && (
        <SliderField
          label="Closest magnification"
          value={taste.limit}
          min={1}
          max={4}
          step={0.05}
          unit="×"
          show={(v) => v.toFixed(2)}
          onChange={(limit) => change({ limit })}
        />
      )}
      <SelectField
        label="Plan for"
        value={scope}
        options={scopes}
        onChange={(next) => void plan({ scope: next as PlanScope })}
      />
      <p className="text-xs text-ink-2" role="status">
        {describe(framings, seconds)}
      </p>
      <Button onClick={() => void plan()} disabled={planning !== null}>
        {planning === null ? (
          <Waypoints size={14} aria-hidden />
        ) : (
          <LoaderCircle size={14} aria-hidden className="animate-spin" />
        )}
        {planning === null ? 'Plan again' : `Planning, ${Math.round(planning * 100)} %`}
      </Button>
      <SavedPresets
        kind="taste"
        title="Saved ways to plan"
        one="way to plan"
        now={taste}
        describe={({ lively, hold }) => `${Math.round(lively * 100)} %, ${hold} s`}
        onUse={({ value }) => change(value)}
      />
      <p className="text-xs text-ink-2">
        Every press stays in view. Pinned framings and those that reach beyond what is planned stay
        as they are.
      </p>
    </div>
  );
}
