import { nanoid } from 'nanoid';
import { kindOf, KINDS, type CalloutKindName } from '@/core/callout/kinds';
import { canPlan } from '@/core/framing/doings';
import { keepInside } from '@/core/framing/path';
import { newLook, pointerSpan } from '@/core/pointer/model';
import { DEFAULT_MARKER_COLOR } from '@/core/project/create';
import { LAYOUTS, type LayoutKind } from '@/core/layout/built-in';
import type { Callout } from '@/core/project/model';
import { sourceTime } from '@/core/project/clip-time';
import { projectDuration, spanAt, stepAt, stepRange } from '@/core/project/query';
import { wholeView } from '@/core/scale/sharpness';
import { frontmost, sceneAt, screenOf, type ScreenView } from '@/core/scene/scene';
import { pointerAt } from '@/core/telemetry/sample';
import { secondsToTicks, ticksToSeconds, TICKS_PER_SECOND } from '@/core/time/ticks';
import { tell, tellFault } from '../../shell/notices-store';
import { capital } from '../names';
import { rangeOf } from '../store';
import type { Command, CommandContext } from './context';

const CALLOUT_SECONDS = 4;
const FRAMING_SECONDS = 5;

/** What stands beside the clips: framings, callouts, pointer looks, layouts, markers. */
export function thingCommands(c: CommandContext): Command[] {
  const { store } = c;
  const get = () => c.state;
  const here = () => c.here;
  const screenHere = () => {
    const { project, sources } = get();
    const scene = sceneAt(project, sources, c.playhead);
    const found = frontmost(scene, 'screen');
    if (found) return screenOf(scene, found);
    tellFault('There is no screen recording under the playhead.');
    return null;
  };
  const spotHere = ({ clip, footage, view }: ScreenView) => {
    const { sources } = get();
    const track = sources.pointers[footage.id];
    if (track) return pointerAt(track, ticksToSeconds(sourceTime(clip, c.playhead)) * 1000);
    return { x: view.x + view.width / 2, y: view.y + view.height / 2 };
  };

  const plan = async () => {
    const { sources, planFramings } = get();
    if (!canPlan(sources))
      return tellFault(
        'Nothing is known yet of what is done on the screen. Press “Find the pointer” in the details of a screen recording in Footage, attach a pointer track there, or set framings by hand with F.',
      );
    get().endGesture();
    get().select({ kind: 'plan' });
    const plan = await planFramings();
    if (!plan) return;
    const { framings } = plan;
    const pinned = framings.filter((f) => f.pinned).length;
    tell(
      `${framings.length} framing${framings.length === 1 ? '' : 's'}${pinned ? `, ${pinned} of them pinned and left alone` : ''}. Select one in the Framing lane to change it.`,
      { label: 'Undo', run: () => get().undo() },
    );
  };
  const framing = () => {
    const screen = screenHere();
    if (!screen) return;
    const { project } = get();
    const { footage, area, limit } = screen;
    const whole = wholeView(area, project.canvas);
    const zoom = Math.max(1.2, limit);
    const spot = spotHere(screen);
    const width = whole.width / zoom;
    const height = whole.height / zoom;
    const start = here();
    const end = Math.min(
      start + secondsToTicks(FRAMING_SECONDS),
      screen.clip.start + screen.clip.duration,
    );
    const ramp = Math.min(TICKS_PER_SECOND, Math.floor((end - start) / 3));
    const id = nanoid();
    const rect = {
      ...keepInside({ x: spot.x - width / 2, y: spot.y - height / 2, width, height }, whole),
    };
    const shared = { id, start, end, rampIn: ramp, rampOut: ramp, footageId: footage.id };
    const framing = { ...shared, rect, endRect: null, pinned: true, reason: '' };
    if (get().apply('add-framing', { framing })) get().select({ kind: 'framings', id });
  };
  const callout = (kind: CalloutKindName) => {
    const screen = screenHere();
    const { create } = kindOf({ kind });
    if (!screen || !create) return;
    const { footage } = screen;
    const id = nanoid();
    const start = here();
    const spot = { at: spotHere(screen), size: footage, frame: get().project.canvas };
    const made = {
      ...create(spot),
      id,
      start,
      end: start + secondsToTicks(CALLOUT_SECONDS),
      anchor: { to: 'footage', footageId: footage.id },
    } as Callout;
    if (!get().apply('add-callout', { callout: made })) return;
    get().select({ kind: 'callouts', id });
    // What is typed next are its words.
    if (kind === 'text') get().set({ typeInto: id });
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
  const layout = (kind: LayoutKind) => () => {
    const { project } = get();
    const step = stepAt(project, c.playhead);
    const range = rangeOf(get()) ??
      (step && stepRange(project, step.id)) ?? { start: here(), end: projectDuration(project) };
    get().apply('set-layout', { ...range, layout: LAYOUTS[kind] });
  };

  return [
    { id: 'marker', label: 'Marker here', keys: ['M'], run: marker },
    { id: 'plan', label: 'Plan framings', keys: [], run: () => void plan() },
    { id: 'framing', label: 'Framing here', keys: ['F'], run: framing },
    ...(Object.keys(KINDS) as CalloutKindName[])
      .filter((kind) => kindOf({ kind }).create)
      .map((kind) => ({
        id: kindOf({ kind }).name,
        label: `${capital(kindOf({ kind }).name)} here`,
        keys: kind === 'text' ? ['X'] : [],
        run: () => callout(kind),
      })),
    { id: 'halo', label: 'Halo', keys: [], run: halo },
    {
      id: 'layout-corner',
      label: 'Layout of the range or step: presenter in a corner',
      keys: [],
      run: layout('corner'),
    },
    {
      id: 'layout-side',
      label: 'Layout of the range or step: side by side',
      keys: [],
      run: layout('side'),
    },
    {
      id: 'layout-presenter',
      label: 'Layout of the range or step: presenter only',
      keys: [],
      run: layout('presenter'),
    },
    {
      id: 'layout-screen',
      label: 'Layout of the range or step: screen only',
      keys: [],
      run: layout('screen'),
    },
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
