'use client';
import { changeLane } from '@/core/edit/lanes';
import { isPictureLane } from '@/core/project/query';
import { CheckField, SliderField, TextField } from '../../parts/fields';
import { useEditor } from '../store';
import { Heading } from './Heading';
import { PresenterDetails } from './PresenterDetails';

export function LaneDetails({ id }: { id: string }) {
  const lane = useEditor((s) => s.project.lanes.find((l) => l.id === id));
  const edit = useEditor((s) => s.edit);
  if (!lane) return null;
  const picture = isPictureLane(lane);
  return (
    <div className="grid gap-2">
      <Heading title={`Lane ${lane.name}`} />
      <TextField
        label="Name"
        value={lane.name}
        onDone={(name) => edit('Lane name', (draft) => changeLane(draft, id, { name: name.slice(0, 200) }))}
      />
      <CheckField
        label={picture ? 'Hidden' : 'Muted'}
        value={lane.off}
        onChange={(off) => edit(picture ? 'Hide lane' : 'Mute lane', (draft) => changeLane(draft, id, { off }))}
      />
      <CheckField
        label="Locked"
        value={lane.locked}
        onChange={(locked) => edit('Lock lane', (draft) => changeLane(draft, id, { locked }))}
      />
      {!picture && (
        <SliderField
          label="Level"
          value={lane.gain}
          min={-40}
          max={12}
          step={0.5}
          unit="dB"
          onChange={(gain) => edit('Lane level', (draft) => changeLane(draft, id, { gain }), true)}
        />
      )}
      {lane.kind === 'presenter' && <PresenterDetails />}
    </div>
  );
}
