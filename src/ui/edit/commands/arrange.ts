import type { Arrangement } from '@/core/callout/align';
import { secondsToTicks, snapToFrame } from '@/core/time/ticks';
import { tellFault } from '../../shell/notices-store';
import { arrangingTogether } from '../picture/move-together';
import { selectedSpans } from '../store';
import type { Command, CommandContext } from './context';

/** What callouts that are selected together are brought into, and what it is called. */
export const ARRANGEMENTS: readonly (readonly [Arrangement, string])[] = [
  ['left', 'Left edges in line'],
  ['middle', 'Middles one below the other'],
  ['right', 'Right edges in line'],
  ['top', 'Upper edges in line'],
  ['center', 'Middles side by side'],
  ['bottom', 'Lower edges in line'],
  ['across', 'Same room across'],
  ['down', 'Same room down'],
];

/** One that comes after the other does so after this many seconds. */
export const STAGGER_SECONDS = 0.3;

export const arrangeId = (how: Arrangement): string => `arrange-${how}`;

/** What brings callouts that are selected together in line, in the picture or in time. */
export const arrangeCommands = (c: CommandContext): Command[] => [
  ...ARRANGEMENTS.map(([how, label]) => ({
    id: arrangeId(how),
    label,
    keys: [],
    run: () => {
      const changes = arrangingTogether(c.state, how);
      if (changes) return void c.state.apply('change-callouts', changes);
      const least = how === 'across' || how === 'down' ? 'three' : 'two';
      tellFault(`Select ${least} callouts or more that are seen at the playhead.`);
    },
  })),
  {
    id: 'stagger',
    label: 'One after the other',
    keys: [],
    run: () => {
      const by = snapToFrame(secondsToTicks(STAGGER_SECONDS), c.state.project.canvas.frameRate);
      c.state.apply('stagger-callouts', { ids: [...selectedSpans(c.state)], by });
    },
  },
];
