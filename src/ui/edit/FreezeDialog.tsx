'use client';
import { useForm, useWatch } from 'react-hook-form';
import { clipAt, findClip, isPictureLane } from '@/core/project/query';
import { frameDuration, secondsToTicks, snapToFrame, type Ticks } from '@/core/time/ticks';
import { Button } from '../parts/Button';
import { Dialog } from '../parts/Dialog';
import { NumberField, SelectField } from '../parts/fields';
import type { EditorState } from './session/state';
import { playheadOf, useAtPlayhead, useEditorStore } from './store';

const WAYS = [
  ['over', 'This clip only; sound and the rest go on'],
  ['all', 'The whole picture; everything after waits'],
] as const;

interface FreezeForm {
  readonly seconds: number;
  readonly way: (typeof WAYS)[number][0];
}

/** Asks how long and how a frame is held. */
export function FreezeDialog({ open, onClose }: { open: boolean; onClose: () => void }) {
  const store = useEditorStore();
  const { control, setValue, handleSubmit } = useForm<FreezeForm>({
    defaultValues: { seconds: 2, way: 'over' },
  });
  const { seconds = 2, way = 'over' } = useWatch({ control });
  const name = useAtPlayhead((s, playhead) => {
    const clip = pictureHere(s, playhead);
    return clip ? (s.sources.footage[clip.footageId]?.name ?? 'missing footage') : null;
  });
  const freeze = handleSubmit(({ seconds, way }) => {
    const { project, apply, select } = store.getState();
    const { frameRate } = project.canvas;
    const frame = frameDuration(frameRate);
    const playhead = playheadOf(store.getState());
    const time = snapToFrame(playhead, frameRate);
    const length = Math.max(frame, snapToFrame(secondsToTicks(seconds), frameRate));
    const clip = pictureHere(store.getState(), playhead);
    const done =
      way === 'all' || !clip
        ? apply('freeze-all', { time, length })
        : apply('freeze-clip', { clipId: clip.id, time, length });
    if (!done) return;
    const ids = done.result;
    onClose();
    select({ kind: 'clip', id: ids[0]! }, ids.slice(1));
  });
  return (
    <Dialog
      open={open}
      onClose={onClose}
      title="Freeze frame"
      description={
        name
          ? `Holds the picture of “${name}” at the playhead.`
          : 'Put the playhead on a picture first.'
      }
    >
      <form noValidate className="grid gap-3" onSubmit={(e) => void freeze(e)}>
        <NumberField
          label="Length"
          unit="s"
          value={seconds}
          min={0.04}
          max={600}
          step={0.1}
          onDone={(value) => setValue('seconds', value)}
        />
        <SelectField
          label="Hold"
          value={way}
          options={WAYS}
          onChange={(value) => setValue('way', value)}
        />
        <Button look="primary" type="submit" disabled={!name}>
          Freeze
        </Button>
      </form>
    </Dialog>
  );
}

/**
 * The picture clip that is meant: the selected one if the playhead is on it, else the frontmost
 * screen, else any picture.
 */
function pictureHere(
  { project, selection }: Pick<EditorState, 'project' | 'selection'>,
  playhead: Ticks,
) {
  const selected = selection?.kind === 'clip' ? findClip(project, selection.id) : null;
  if (selected && isPictureLane(selected.lane) && clipAt(selected.lane, playhead) === selected.clip)
    return selected.clip;
  const lanes = project.lanes.filter((l) => isPictureLane(l) && !l.locked);
  for (const kind of ['screen', 'presenter'])
    for (const lane of lanes) {
      const clip = lane.kind === kind ? clipAt(lane, playhead) : null;
      if (clip) return clip;
    }
  return null;
}
