import { nanoid } from 'nanoid';
import { kindOf, KINDS, type CalloutKindName } from '@/core/callout/kinds';
import type { Pen } from '@/core/callout/pen';
import { newLook, pointerSpan } from '@/core/pointer/model';
import { DEFAULT_MARKER_COLOR } from '@/core/project/create';
import { projectDuration, spanAt } from '@/core/project/query';
import { frontmost } from '@/core/scene/scene';
import { secondsToTicks } from '@/core/time/ticks';
import { tell, tellFault } from '../../shell/notices-store';
import { capital } from '../names';
import { rangeOf } from '../store';
import { arrangeCommands } from './arrange';
import type { Command, CommandContext } from './context';
import { framingCommands } from './framings';
import { layoutCommands } from './layouts';
import { addShape } from './shapes';
import { styleCommands } from './styles';

const PENS: readonly (readonly [Pen, string])[] = [
  ['pen', 'Draw with the pen'],
  ['marker', 'Draw with the marker pen'],
];
const LOOK_SECONDS = 6;

/** What stands beside the clips: framings, callouts, pointer looks, layouts, markers. */
export function thingCommands(c: CommandContext): Command[] {
  const { store } = c;
  const get = () => c.state;
  const here = () => c.here;
  /** The still that was brought last. */
  const picture = () => {
    const still = get().footage.findLast(
      ({ role, status }) => role === 'still' && status === 'ready',
    );
    if (still) addShape(c, { still: still.id });
    else tellFault('Add a picture (PNG, JPEG or WebP) to Footage first.');
  };
  const halo = () => {
    const { playhead } = c;
    const { project, select } = get();
    const there = spanAt(project.pointer, playhead);
    if (there) return select({ kind: 'pointer', id: there.id });
    // As long as the space until the next one, so that one press turns it on for the whole.
    const before = project.pointer.findLast((p) => p.end <= playhead)?.end ?? 0;
    const after =
      project.pointer.find((p) => p.start > playhead)?.start ?? projectDuration(project);
    const id = nanoid();
    const span = pointerSpan(id, { start: before, end: after }, [newLook('halo')]);
    if (get().apply('add-pointer-looks', { span })) select({ kind: 'pointer', id });
  };
  /** Looks of their own for the range or a while, over those that are there. */
  const looks = () => {
    const start = here();
    const range = rangeOf(get()) ?? { start, end: start + secondsToTicks(LOOK_SECONDS) };
    const id = nanoid();
    const span = pointerSpan(id, range, [newLook('ring')]);
    if (get().apply('add-pointer-looks', { span })) get().select({ kind: 'pointer', id });
  };
  const marker = () => {
    const id = nanoid();
    if (
      get().apply('add-marker', {
        marker: {
          id,
          time: here(),
          name: `Marker ${get().project.markers.length + 1}`,
          color: DEFAULT_MARKER_COLOR,
        },
      })
    )
      get().select({ kind: 'marker', id });
  };
  const draw = (pen: Pen) => {
    if (!c.screenHere()) return;
    get().select(null);
    get().set({ drawing: pen });
  };
  /** For the recording that is seen here, or the first that there is. */
  const privateData = () => {
    const { project, sources, select } = get();
    const footageId =
      frontmost({ project, sources, time: c.playhead }, 'screen')?.footage.id ??
      Object.values(sources.footage).find((one) => one?.role === 'screen')?.id;
    if (footageId) select({ kind: 'private', footageId });
    else tellFault('There is no screen recording yet in which private data could be found.');
  };
  return [
    { id: 'marker', label: 'Marker here', keys: ['M'], run: marker },
    ...framingCommands(c),
    ...(Object.keys(KINDS) as CalloutKindName[])
      .filter((kind) => kind !== 'picture')
      .filter((kind) => kindOf({ kind }).create)
      .map((kind) => ({
        id: kindOf({ kind }).name,
        label: `${capital(kindOf({ kind }).name)} here`,
        keys: kind === 'text' ? ['X'] : [],
        run: () => addShape(c, { kind }),
      })),
    { id: 'picture', label: 'Picture here', keys: [], run: picture },
    {
      id: 'draws-shapes',
      label: 'Draw new callouts on the Picture: on or off',
      keys: [],
      run() {
        const draws = !get().drawsShapes;
        get().set({ drawsShapes: draws });
        // Nothing else shows it where the menu of shapes is closed.
        tell(
          draws
            ? 'New callouts are drawn on the Picture.'
            : 'New callouts are put where the pointer is.',
        );
      },
    },
    ...PENS.map(([pen, label]) => ({
      id: `draw-${pen}`,
      label,
      keys: [],
      run: () => draw(pen),
    })),
    { id: 'private', label: 'Find private data', keys: [], run: privateData },
    { id: 'halo', label: 'Halo', keys: [], run: halo },
    { id: 'pointer-looks', label: 'Pointer looks here', keys: [], run: looks },
    ...arrangeCommands(c),
    ...styleCommands(c),
    ...layoutCommands(c),
    {
      id: 'presenter',
      label: 'Presenter settings',
      keys: [],
      run: () => get().select({ kind: 'presenter' }),
    },
    {
      id: 'snapping',
      label: 'Snapping on or off',
      keys: [],
      run: () => store.setState({ snapping: !get().snapping }),
    },
  ];
}
