import { arrangementsFor } from '@/core/layout/arrangements';
import { byHand } from '@/core/layout/by-hand';
import { LAYOUT_KINDS, LAYOUTS, USUAL_LAYOUT } from '@/core/layout/built-in';
import type { Layout } from '@/core/layout/model';
import { areaOf, projectDuration, spanAt, stepAt, stepRange } from '@/core/project/query';
import { frontmost } from '@/core/scene/scene';
import type { Range } from '@/core/time/ranges';
import { tellFault } from '../../shell/notices-store';
import { rangeOf } from '../store';
import type { Command, CommandContext } from './context';

/** The range, or the step at the playhead, or the rest. */
function stretchHere(c: CommandContext): Range {
  const { project } = c.state;
  const step = stepAt(project, c.playhead);
  return (
    rangeOf(c.state) ??
    (step && stepRange(project, step.id)) ?? { start: c.here, end: projectDuration(project) }
  );
}

/** Sets a layout for the range, or for the step at the playhead. */
const setLayoutHere = (c: CommandContext, layout: Layout): void =>
  void c.state.apply('set-layout', { ...stretchHere(c), layout: structuredClone(layout) });

/** Sets what is seen now as a layout that is then changed by hand. */
function layoutByHand(c: CommandContext): void {
  const { project, sources } = c.state;
  const shown = frontmost({ project, sources, time: c.playhead }, 'presenter');
  if (!shown) return tellFault('There is no presenter under the playhead to be placed.');
  const area = areaOf(project, shown.footage);
  const range = stretchHere(c);
  const now = spanAt(project.layouts, c.playhead)?.layout ?? USUAL_LAYOUT;
  const layout = byHand(now, project.presenter, area, project.canvas);
  if (!c.state.apply('set-layout', { ...range, layout })) return;
  const span = spanAt(c.state.project.layouts, range.start);
  if (span) c.state.select({ kind: 'layouts', id: span.id });
}

/** The command that sets one of the arrangements to begin with. */
export const arrangementId = ({ name }: Layout): string =>
  `layout-${name.toLowerCase().replace(/\W+/g, '-')}`;

/** How screen and presenter share the picture. */
export const layoutCommands = (c: CommandContext): Command[] => [
  ...LAYOUT_KINDS.map((kind) => ({
    id: `layout-${kind}`,
    label: `Layout of the range or step: ${LAYOUTS[kind].name.toLowerCase()}`,
    keys: [],
    run: () => setLayoutHere(c, LAYOUTS[kind]),
  })),
  ...arrangementsFor(c.state.project.canvas).map((layout) => ({
    id: arrangementId(layout),
    label: `Layout of the range or step: ${layout.name.toLowerCase()}`,
    keys: [],
    run: () => setLayoutHere(c, layout),
  })),
  ...c.state.savedLayouts.map(({ id, name, value }) => ({
    id: `layout-saved-${id}`,
    label: `Layout of the range or step, saved: ${name}`,
    keys: [],
    run: () => setLayoutHere(c, { ...value, name }),
  })),
  {
    id: 'keep-clear',
    label: 'Presenter keeps clear of what is shown',
    keys: [],
    run: () => void c.state.keepClear(),
  },
  {
    id: 'suggest-layouts',
    label: 'Suggest a layout for each step',
    keys: [],
    run: () => c.state.select({ kind: 'suggestions' }),
  },
  {
    id: 'layout-hand',
    label: 'Layout of the range or step: by hand',
    keys: [],
    run: () => layoutByHand(c),
  },
];
