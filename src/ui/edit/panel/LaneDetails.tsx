'use client';
import { changeLane, moveLane, removeLane } from '@/core/edit/lanes';
import { Button } from '../../parts/Button';
import { Lane } from '@/core/project/model';
import { isPictureLane } from '@/core/project/query';
import { CheckField, TextField } from '../../parts/fields';
import { SettingField } from '../../parts/setting-fields';
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
        onDone={(name) =>
          edit('Lane name', (draft) => changeLane(draft, id, { name: name.slice(0, 200) }))
        }
      />
      <CheckField
        label={picture ? 'Hidden' : 'Muted'}
        value={lane.off}
        onChange={(off) =>
          edit(picture ? 'Hide lane' : 'Mute lane', (draft) => changeLane(draft, id, { off }))
        }
      />
      <CheckField
        label="Locked"
        value={lane.locked}
        onChange={(locked) => edit('Lock lane', (draft) => changeLane(draft, id, { locked }))}
      />
      {!picture && (
        <SettingField
          schema={Lane.properties.gain}
          value={lane.gain}
          onChange={(gain) => edit('Lane level', (draft) => changeLane(draft, id, { gain }), true)}
        />
      )}
      <CheckField
        label="Solo"
        value={lane.solo}
        onChange={(solo) => edit('Solo lane', (draft) => changeLane(draft, id, { solo }))}
      />
      <SettingField
        schema={Lane.properties.height}
        value={lane.height}
        onChange={(height) =>
          edit('Lane height', (draft) => changeLane(draft, id, { height }), true)
        }
      />
      <span className="flex flex-wrap gap-2">
        <Button onClick={() => edit('Move lane', (draft) => moveLane(draft, id, -1))}>
          {picture ? 'To the front' : 'Up'}
        </Button>
        <Button onClick={() => edit('Move lane', (draft) => moveLane(draft, id, 1))}>
          {picture ? 'To the back' : 'Down'}
        </Button>
        <Button onClick={() => edit('Remove lane', (draft) => removeLane(draft, id))}>
          Remove the lane
        </Button>
      </span>
      {picture && (
        <p className="text-xs text-ink-2">
          What is higher on the timeline is in front in the Picture.
        </p>
      )}
      {lane.kind === 'presenter' && <PresenterDetails />}
    </div>
  );
}
