import type { SpanList } from '@/core/project/span-lists';
import { contains } from '@/core/time/ranges';
import { clipAt } from '@/core/project/query';
import type { Project } from '@/core/project/model';
import type { Ticks } from '@/core/time/ticks';
import { tellFault } from '../../shell/notices-store';
import type { Selection } from '../session/state';
import type { Command, CommandContext } from './context';

/** The order of the rows of spans on the timeline, from the top. */
const ROWS = ['layouts', 'framings', 'pointer', 'callouts'] as const satisfies readonly SpanList[];

/** What stands at an instant, row after row from the top of the timeline. */
function thingsAt(project: Project, time: Ticks): NonNullable<Selection>[] {
  const spans = ROWS.flatMap((kind) =>
    (project[kind] as readonly { id: string; start: Ticks; end: Ticks }[])
      .filter((span) => contains(span, time))
      .map(({ id }) => ({ kind, id })),
  );
  const clips = project.lanes.flatMap((lane) => {
    const clip = clipAt(lane, time);
    return clip ? [{ kind: 'clip' as const, id: clip.id }] : [];
  });
  return [...spans, ...clips];
}

/** Gives an item of the timeline the focus, so that keys meant for it reach it. */
const focusItem = (id: string): void => {
  requestAnimationFrame(() =>
    document
      .querySelector<HTMLElement>(`[data-clip="${CSS.escape(id)}"],[data-item="${CSS.escape(id)}"]`)
      ?.focus({ preventScroll: true }),
  );
};

/** Going from one thing under the playhead to the next. */
export function atPlayheadCommands(c: CommandContext): Command[] {
  const go = (by: 1 | -1) => () => {
    const { project, selection, select } = c.state;
    const all = thingsAt(project, c.playhead);
    const selected = selection && 'id' in selection ? selection.id : null;
    const at = all.findIndex((thing) => 'id' in thing && thing.id === selected);
    const next = at < 0 ? (by > 0 ? all[0] : all.at(-1)) : all[at + by];
    if (!all.length) return tellFault('Nothing stands under the playhead.');
    if (!next) return;
    select(next);
    if ('id' in next) focusItem(next.id);
  };
  return [
    {
      id: 'select-below',
      label: 'Select the next below at the playhead',
      keys: ['ArrowDown'],
      run: go(1),
    },
    {
      id: 'select-above',
      label: 'Select the next above at the playhead',
      keys: ['ArrowUp'],
      run: go(-1),
    },
  ];
}
