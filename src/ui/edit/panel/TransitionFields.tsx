'use client';
import type { End } from '@/core/edit/clips';
import { DEFAULT_TRANSITION } from '@/core/edit/transitions';
import { TRANSITION_KINDS, type Clip, type Lane, type Transition } from '@/core/project/model';
import { touch } from '@/core/transition/crossing';
import { secondsToTicks, ticksToSeconds } from '@/core/time/ticks';
import { ColorField, NumberField, SelectField } from '../../parts/fields';
import { TRANSITION_NAMES } from '../names';
import { useEditorStore } from '../store';

const KINDS = [
  ['none', 'None'],
  ...TRANSITION_KINDS.map((kind) => [kind, TRANSITION_NAMES[kind]] as const),
] as const;
const SIDES = [
  ['left', 'the left'],
  ['right', 'the right'],
  ['top', 'above'],
  ['bottom', 'below'],
] as const;

/** How the picture comes and goes at both ends of a clip. */
export function TransitionFields({ clip, lane }: { clip: Clip; lane: Lane }) {
  const at = lane.clips.indexOf(clip);
  const next = lane.clips[at + 1];
  const joined = touch(clip, next);
  return (
    <fieldset className="grid gap-1.5 border-t border-line pt-2" disabled={lane.locked}>
      <legend className="font-semibold">Transitions</legend>
      <One
        clip={clip}
        end="start"
        label={touch(lane.clips[at - 1], clip) ? 'At the cut before' : 'At its start'}
        transition={clip.transitionIn}
      />
      <One
        clip={clip}
        end="end"
        label={joined ? 'At the cut after' : 'At its end'}
        transition={joined ? next!.transitionIn : clip.transitionOut}
      />
    </fieldset>
  );
}

function One({
  clip,
  end,
  label,
  transition,
}: {
  clip: Clip;
  end: End;
  label: string;
  transition: Transition | null;
}) {
  const store = useEditorStore();
  const set = (value: Transition | null, merge = false) =>
    store.getState().apply('set-transition', { clipId: clip.id, end, transition: value }, merge);
  return (
    <>
      <SelectField
        label={label}
        value={transition?.kind ?? 'none'}
        options={KINDS}
        onChange={(kind) =>
          set(kind === 'none' ? null : { ...(transition ?? DEFAULT_TRANSITION), kind })
        }
      />
      {transition && (
        <>
          <NumberField
            label="Length"
            unit="s"
            value={Number(ticksToSeconds(transition.duration).toFixed(2))}
            min={0.08}
            max={20}
            step={0.1}
            onDone={(seconds) => set({ ...transition, duration: secondsToTicks(seconds) })}
          />
          {transition.kind === 'fade' && (
            <ColorField
              label="Through"
              value={transition.color}
              onChange={(color) => set({ ...transition, color }, true)}
            />
          )}
          {(transition.kind === 'slide' || transition.kind === 'push') && (
            <SelectField
              label="From"
              value={transition.from}
              options={SIDES}
              onChange={(from) => set({ ...transition, from })}
            />
          )}
        </>
      )}
    </>
  );
}
