'use client';
import { Button } from '../../parts/Button';
import { Lane } from '@/core/project/model';
import { isPictureLane } from '@/core/project/query';
import { CheckField } from '../../parts/fields';
import { SettingField } from '../../parts/setting-fields';
import { useEditor } from '../store';
import { Heading } from './Heading';
import { PresenterDetails } from './PresenterDetails';
import { TextOf } from './TextOf';

export function LaneDetails({ id }: { id: string }) {
  const lane = useEditor((s) => s.project.lanes.find((l) => l.id === id));
  const apply = useEditor((s) => s.apply);
  if (!lane) return null;
  const picture = isPictureLane(lane);
  return (
    <div className="grid gap-2">
      <Heading title={`Lane ${lane.name}`} />
      <TextOf
        id={id}
        label="Name"
        value={lane.name}
        most={Lane.properties.name.maxLength}
        onDone={(name) => apply('change-lane', { laneId: id, change: { name } })}
      />
      <CheckField
        label={picture ? 'Hidden' : 'Muted'}
        value={lane.off}
        onChange={(off) => apply('change-lane', { laneId: id, change: { off } })}
      />
      <CheckField
        label="Locked"
        value={lane.locked}
        onChange={(locked) => apply('change-lane', { laneId: id, change: { locked } })}
      />
      {!picture && (
        <SettingField
          schema={Lane.properties.gain}
          value={lane.gain}
          onChange={(gain) => apply('change-lane', { laneId: id, change: { gain } }, true)}
        />
      )}
      <CheckField
        label="Solo"
        value={lane.solo}
        onChange={(solo) => apply('change-lane', { laneId: id, change: { solo } })}
      />
      <SettingField
        schema={Lane.properties.height}
        value={lane.height}
        onChange={(height) => apply('change-lane', { laneId: id, change: { height } }, true)}
      />
      <span className="flex flex-wrap gap-2">
        <Button onClick={() => apply('move-lane', { laneId: id, by: -1 })}>
          {picture ? 'To the front' : 'Up'}
        </Button>
        <Button onClick={() => apply('move-lane', { laneId: id, by: 1 })}>
          {picture ? 'To the back' : 'Down'}
        </Button>
        <Button onClick={() => apply('remove-lane', { laneId: id })}>Remove the lane</Button>
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
