import type { StoreApi } from 'zustand';
import type { Player } from '@/preview/player';
import { withChosenKeys, type Chosen } from '../../keys/chosen';
import { SCALES } from '../timeline/geometry';
import type { EditorState } from '../session/state';
import { atPlayheadCommands } from './at-playhead';
import { CommandContext, type Command } from './context';
import { cutCommands } from './cut';
import { laneCommands } from './lanes';
import { playCommands } from './play';
import { rangeCommands } from './range';
import { thingCommands } from './things';

export type { Command } from './context';

/** Commands that belong together. */
export interface CommandGroup {
  readonly name: string;
  readonly commands: readonly Command[];
}

/** Everything that can be done by name or key. */
export const editorCommands = (
  store: StoreApi<EditorState>,
  player: Player | null,
  chosen?: Chosen,
): readonly Command[] => commandGroups(store, player, chosen).flatMap(({ commands }) => commands);

/** Everything that can be done by name or key, as it belongs together, with the keys it has now. */
export const commandGroups = (
  store: StoreApi<EditorState>,
  player: Player | null,
  chosen?: Chosen,
): readonly CommandGroup[] =>
  usualCommands(store, player).map(({ name, commands }) => ({
    name,
    commands: commands.map((command) => withChosenKeys(command, chosen)),
  }));

/** The same with the keys that they come with. */
export function usualCommands(
  store: StoreApi<EditorState>,
  player: Player | null,
): readonly CommandGroup[] {
  const c = new CommandContext(store, player);
  const scale = (by: number) =>
    store.setState({
      pixelsPerSecond: Math.min(SCALES.most, Math.max(SCALES.least, c.state.pixelsPerSecond * by)),
      scaleChosen: true,
    });
  /** Escape takes back one thing after the other. */
  const escape = () => {
    const { selection, openGroup, range, select, drawing, large } = c.state;
    if (large) store.setState({ large: false });
    else if (drawing) store.setState({ drawing: null });
    else if (selection) select(null);
    else if (openGroup) store.setState({ openGroup: null });
    else if (range.in !== null || range.out !== null)
      store.setState({ range: { in: null, out: null }, rangeLanes: null });
    else select(null);
  };
  return [
    { name: 'Play', commands: playCommands(c) },
    { name: 'Clips', commands: [...atPlayheadCommands(c), ...cutCommands(c)] },
    { name: 'Range', commands: rangeCommands(c) },
    { name: 'Framings, callouts, layouts', commands: thingCommands(c) },
    { name: 'Lanes', commands: laneCommands(c) },
    {
      name: 'Project and view',
      commands: [
        { id: 'scale-up', label: 'Larger timeline scale', keys: ['+', '='], run: () => scale(1.5) },
        {
          id: 'scale-down',
          label: 'Smaller timeline scale',
          keys: ['-'],
          run: () => scale(1 / 1.5),
        },
        {
          id: 'scale-fit',
          label: 'Fit the timeline',
          keys: ['0'],
          run: () => store.setState({ pixelsPerSecond: 0 }),
        },
        {
          id: 'large',
          label: 'Large Picture: fold the panel and the timeline away, or back',
          keys: ['E'],
          run: () => store.setState({ large: !c.state.large }),
        },
        {
          id: 'soft-text',
          label: 'Magnified text as it was recorded, or rebuilt again',
          keys: ['R'],
          run: () => store.setState({ softText: !c.state.softText }),
        },
        { id: 'undo', label: 'Undo', keys: ['Mod+Z'], run: () => c.state.undo() },
        { id: 'redo', label: 'Redo', keys: ['Mod+Shift+Z'], run: () => c.state.redo() },
        {
          id: 'deselect',
          label: 'Select nothing; then close the group; then clear in and out',
          keys: ['Escape'],
          run: escape,
        },
        { id: 'export', label: 'Export', keys: [], run: c.open('export') },
        { id: 'commands', label: 'Command list', keys: ['Mod+K'], run: c.open('commands') },
        { id: 'keys', label: 'Keys', keys: ['?'], run: c.open('keys') },
      ],
    },
  ];
}
