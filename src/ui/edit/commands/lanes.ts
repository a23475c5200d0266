import type { LaneKind } from '@/core/project/model';
import { tellFault } from '../../shell/notices-store';
import type { Command, CommandContext } from './context';

const NAMES: readonly (readonly [LaneKind, string])[] = [
  ['presenter', 'presenter'],
  ['screen', 'screen'],
  ['voice', 'voice'],
  ['music', 'music'],
];

/** Adding lanes, and what is done to the selected one. */
export function laneCommands(c: CommandContext): Command[] {
  const onLane = (run: (id: string) => void) => () => {
    const { selection } = c.state;
    if (selection?.kind === 'lane') run(selection.id);
    else tellFault('Select a lane first: press its name.');
  };
  return [
    ...NAMES.map(([kind, name]) => ({
      id: `add-${kind}`,
      label: `Add a ${name} lane`,
      keys: [],
      run: () => {
        const done = c.state.apply('add-lane', { kind });
        if (done) c.state.select({ kind: 'lane', id: done.result });
      },
    })),
    {
      id: 'lane-front',
      label: 'Move the lane to the front',
      keys: [],
      run: onLane((id) => void c.state.apply('move-lane', { laneId: id, by: -1 })),
    },
    {
      id: 'lane-back',
      label: 'Move the lane to the back',
      keys: [],
      run: onLane((id) => void c.state.apply('move-lane', { laneId: id, by: 1 })),
    },
    {
      id: 'lane-remove',
      label: 'Remove the lane',
      keys: [],
      run: onLane((id) => void c.state.apply('remove-lane', { laneId: id })),
    },
    {
      id: 'lane-lock',
      label: 'Lock or unlock the lane',
      keys: [],
      run: onLane((id) => {
        const lane = c.state.project.lanes.find((l) => l.id === id);
        if (lane) c.state.apply('change-lane', { laneId: id, change: { locked: !lane.locked } });
      }),
    },
    { id: 'history', label: 'Undo history', keys: [], run: c.open('history') },
  ];
}
