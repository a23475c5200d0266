import { Type } from '@sinclair/typebox';
import { Lane, LANE_KINDS, type LaneKind } from '../../project/model';
import { addLane, changeLane, moveLane, removeLane } from '../lanes';
import { args, defineEdit } from './kind';

const laneId = Type.String();
const Change = Type.Partial(Type.Pick(Lane, ['off', 'solo', 'locked', 'gain', 'name', 'height']));

/** What a change of a lane is called, by what it changes. */
const CHANGES = {
  off: 'Hide or mute lane',
  solo: 'Solo lane',
  locked: 'Lock lane',
  gain: 'Lane level',
  name: 'Lane name',
  height: 'Lane height',
} as const;

/** Adding lanes, and what is done to one. */
export const LANE_EDITS = {
  'add-lane': defineEdit({
    label: 'Add lane',
    args: args({ kind: Type.Unsafe<LaneKind>({ enum: [...LANE_KINDS] }) }),
    run: (p, { kind }, { newId }) => addLane(p, kind, newId),
  }),
  'remove-lane': defineEdit({
    label: 'Remove lane',
    args: args({ laneId }),
    run: (p, { laneId }) => removeLane(p, laneId),
  }),
  'move-lane': defineEdit({
    label: 'Move lane',
    args: args({ laneId, by: Type.Integer() }),
    run: (p, { laneId, by }) => moveLane(p, laneId, by),
  }),
  'change-lane': defineEdit({
    label: ({ change }) => CHANGES[Object.keys(change)[0] as keyof typeof CHANGES] ?? 'Change lane',
    args: args({ laneId, change: Change }),
    run: (p, { laneId, change }) => changeLane(p, laneId, change),
  }),
} as const;
