import { nanoid } from 'nanoid';
import type { StoreApi } from 'zustand';
import { liftClips, splitAll, splitClip, trimClip } from '@/core/edit/clips';
import { addMarker, removeMarker } from '@/core/edit/markers';
import { removeStep } from '@/core/edit/outline';
import { closeGap, gapAt, rippleDeleteClips } from '@/core/edit/ripple';
import { replaceFramings } from '@/core/edit/settings';
import { addSpan, removeSpan, setLayout } from '@/core/edit/spans';
import { keepInside } from '@/core/framing/path';
import { planFramings } from '@/core/framing/planner';
import { viewAt } from '@/core/framing/view';
import { DEFAULT_HALO } from '@/core/pointer/halo';
import { DEFAULT_MARKER_COLOR } from '@/core/project/create';
import type { LayoutKind } from '@/core/project/model';
import { sourceTime } from '@/core/project/clip-time';
import { areaOf, clipAt, findClip, projectDuration, spanAt, stepAt, stepRange, visibleClip } from '@/core/project/query';
import { sharpLimit, wholeView } from '@/core/scale/sharpness';
import { pointerAt } from '@/core/telemetry/sample';
import { frameDuration, secondsToTicks, snapToFrame, ticksToSeconds, TICKS_PER_SECOND } from '@/core/time/ticks';
import type { Player } from '@/preview/player';
import { tell, tellFault } from '../shell/notices-store';
import type { EditorState } from './store';

/** Opens what is not part of the timeline. */
export interface Openers {
  readonly commands: () => void;
  readonly keys: () => void;
  readonly exporting: () => void;
}

export interface Command {
  readonly id: string;
  readonly label: string;
  /** Keys as `Mod+Shift+Z`; Mod is Ctrl, or Cmd on a Mac. */
  readonly keys: readonly string[];
  readonly run: () => void;
}

const CALLOUT_SECONDS = 4;
const FRAMING_SECONDS = 5;

/** Everything that can be done by name or key. */
export function editorCommands(store: StoreApi<EditorState>, player: Player | null, openers: Openers): Command[] {
  const get = () => store.getState();
  const frame = () => frameDuration(get().project.canvas.frameRate);
  const here = () => snapToFrame(get().playhead, get().project.canvas.frameRate);
  const seek = (time: number) => {
    const playhead = Math.max(0, Math.min(time, projectDuration(get().project)));
    store.setState({ playhead });
    player?.seek(playhead);
  };
  const play = (rate: number) => void player?.play(rate);
  const selectedClip = () => {
    const { selection, project } = get();
    return selection?.kind === 'clip' ? findClip(project, selection.id) : null;
  };
  /** The selected clip, or the one under the playhead on the frontmost unlocked lane. */
  const clipHere = () =>
    selectedClip()?.clip ??
    get()
      .project.lanes.filter((l) => !l.locked)
      .map((l) => clipAt(l, get().playhead))
      .find(Boolean) ??
    null;
  const screenHere = () => {
    const { project, sources, playhead } = get();
    const clip = visibleClip(project, 'screen', playhead);
    const footage = clip && sources.footage[clip.footageId];
    if (clip && footage) return { clip, footage };
    tellFault('There is no screen recording under the playhead.');
    return null;
  };
  const spotHere = ({ clip, footage }: NonNullable<ReturnType<typeof screenHere>>) => {
    const { project, sources, playhead } = get();
    const track = sources.pointers[footage.id];
    if (track) return pointerAt(track, ticksToSeconds(sourceTime(clip, playhead)) * 1000);
    const { rect } = viewAt(project.framings, footage.id, areaOf(project, footage), project.canvas, playhead);
    return { x: rect.x + rect.width / 2, y: rect.y + rect.height / 2 };
  };

  const split = () => {
    const found = selectedClip();
    get().edit('Split', (draft) => (found ? splitClip(draft, found.clip.id, here(), nanoid) : splitAll(draft, here(), nanoid)));
  };
  const removeSelected = (ripple: boolean) => {
    const { selection, edit } = get();
    if (!selection || !('id' in selection)) return tellFault('Select a clip or another thing on the timeline first.');
    if (selection.kind === 'clip')
      edit(ripple ? 'Ripple delete' : 'Lift', (draft) =>
        ripple ? rippleDeleteClips(draft, [selection.id], nanoid) : liftClips(draft, [selection.id]),
      );
    else if (selection.kind === 'step') edit('Remove step', (draft) => removeStep(draft, selection.id));
    else if (selection.kind === 'marker') edit('Remove marker', (draft) => removeMarker(draft, selection.id));
    else if (selection.kind !== 'lane') edit('Remove', (draft) => removeSpan(draft, selection.id));
  };
  const trim = (end: 'start' | 'end') => {
    const clip = clipHere();
    if (!clip) return tellFault('Put the playhead on a clip, or select one, to trim it.');
    get().edit(`Trim ${end}`, (draft) => trimClip(draft, get().sources, clip.id, end, here(), frame()));
  };
  const gap = () => {
    const { selection, project, playhead } = get();
    const lanes = selection?.kind === 'lane' ? project.lanes.filter((l) => l.id === selection.id) : project.lanes;
    const lane = lanes.find((l) => !l.locked && gapAt(l, playhead));
    if (!lane) return tellFault('There is no gap under the playhead.');
    get().edit('Close gap', (draft) => closeGap(draft, lane.id, get().playhead, nanoid));
  };
  const plan = () => {
    const { project, sources, edit } = get();
    if (!Object.keys(sources.pointers).length)
      return tellFault(
        'No recording has a pointer track, so there is nothing to plan from. Attach one in Footage, or set framings by hand with F.',
      );
    const framings = planFramings(project, sources, nanoid);
    edit('Plan framings', (draft) => replaceFramings(draft, framings));
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
    const { footage } = screen;
    const area = areaOf(project, footage);
    const whole = wholeView(area, project.canvas);
    const zoom = Math.max(1.2, sharpLimit(area, project.canvas));
    const spot = spotHere(screen);
    const width = whole.width / zoom;
    const height = whole.height / zoom;
    const start = here();
    const end = Math.min(start + secondsToTicks(FRAMING_SECONDS), screen.clip.start + screen.clip.duration);
    const ramp = Math.min(TICKS_PER_SECOND, Math.floor((end - start) / 3));
    const id = nanoid();
    const rect = { ...keepInside({ x: spot.x - width / 2, y: spot.y - height / 2, width, height }, whole) };
    if (
      get().edit('Framing here', (draft) =>
        addSpan(draft, 'framings', { id, start, end, rampIn: ramp, rampOut: ramp, footageId: footage.id, rect, pinned: true, reason: '' }),
      )
    )
      get().select({ kind: 'framings', id });
  };
  const callout = (kind: 'text' | 'cover') => {
    const screen = screenHere();
    if (!screen) return;
    const { footage } = screen;
    const { project } = get();
    const anchor = spotHere(screen);
    const start = here();
    const base = { id: nanoid(), start, end: start + secondsToTicks(CALLOUT_SECONDS), footageId: footage.id };
    const height = project.canvas.height;
    const added =
      kind === 'text'
        ? get().edit('Callout here', (draft) =>
            addSpan(draft, 'callouts', {
              ...base,
              kind: 'text',
              text: 'Look here',
              anchor: { ...anchor },
              offset: {
                dx: anchor.x < footage.width / 2 ? height * 0.25 : -height * 0.25,
                dy: anchor.y < footage.height / 2 ? height * 0.16 : -height * 0.16,
              },
              size: Math.round(height * 0.035),
              fill: '#8e3f66',
              ink: '#ffffff',
              arrow: true,
            }),
          )
        : get().edit('Cover here', (draft) =>
            addSpan(draft, 'callouts', {
              ...base,
              kind: 'cover',
              rect: {
                x: anchor.x - footage.width * 0.1,
                y: anchor.y - footage.height * 0.04,
                width: footage.width * 0.2,
                height: footage.height * 0.08,
              },
              strength: 24,
            }),
          );
    if (added) get().select({ kind: 'callouts', id: base.id });
  };
  const halo = () => {
    const { project, playhead, select } = get();
    const there = spanAt(project.pointer, playhead);
    if (there) return select({ kind: 'pointer', id: there.id });
    // As long as the space until the next one, so that one press turns it on for the whole.
    const before = project.pointer.findLast((p) => p.end <= playhead)?.end ?? 0;
    const after = project.pointer.find((p) => p.start > playhead)?.start ?? projectDuration(project);
    const id = nanoid();
    if (get().edit('Halo', (draft) => addSpan(draft, 'pointer', { id, start: before, end: after, halo: DEFAULT_HALO })))
      select({ kind: 'pointer', id });
  };
  const marker = () => {
    const id = nanoid();
    if (get().edit('Marker here', (draft) => addMarker(draft, { id, time: here(), name: `Marker ${draft.markers.length + 1}`, color: DEFAULT_MARKER_COLOR })))
      get().select({ kind: 'marker', id });
  };
  const layout = (kind: LayoutKind) => () => {
    const { project } = get();
    const step = stepAt(project, get().playhead);
    const range = (step && stepRange(project, step.id)) ?? { start: here(), end: projectDuration(project) };
    get().edit('Layout', (draft) => setLayout(draft, range, kind, nanoid));
  };
  const scale = (by: number) => store.setState({ pixelsPerSecond: Math.min(400, Math.max(1, get().pixelsPerSecond * by)) });

  return [
    { id: 'play', label: 'Play or pause', keys: ['Space'], run: () => play(get().rate ? 0 : 1) },
    { id: 'shuttle-back', label: 'Play backwards', keys: ['J'], run: () => play(get().rate < 0 ? Math.max(-4, get().rate * 2) : -1) },
    { id: 'pause', label: 'Pause', keys: ['K'], run: () => play(0) },
    {
      id: 'shuttle-on',
      label: 'Play, faster at each press',
      keys: ['L'],
      run: () => play(get().rate > 0 ? Math.min(4, get().rate * 2) : 1),
    },
    { id: 'frame-back', label: 'One frame back', keys: ['ArrowLeft'], run: () => seek(here() - frame()) },
    { id: 'frame-on', label: 'One frame on', keys: ['ArrowRight'], run: () => seek(here() + frame()) },
    { id: 'second-back', label: 'One second back', keys: ['Shift+ArrowLeft'], run: () => seek(get().playhead - TICKS_PER_SECOND) },
    { id: 'second-on', label: 'One second on', keys: ['Shift+ArrowRight'], run: () => seek(get().playhead + TICKS_PER_SECOND) },
    { id: 'start', label: 'To the start', keys: ['Home'], run: () => seek(0) },
    { id: 'end', label: 'To the end', keys: ['End'], run: () => seek(projectDuration(get().project)) },
    { id: 'split', label: 'Split at the playhead', keys: ['B'], run: split },
    { id: 'lift', label: 'Lift (remove, leave the gap)', keys: ['Delete', 'Backspace'], run: () => removeSelected(false) },
    {
      id: 'ripple',
      label: 'Ripple delete (remove, close the gap)',
      keys: ['Shift+Delete', 'Shift+Backspace'],
      run: () => removeSelected(true),
    },
    { id: 'close-gap', label: 'Close gap at the playhead', keys: [], run: gap },
    { id: 'trim-start', label: 'Trim the start to the playhead', keys: ['['], run: () => trim('start') },
    { id: 'trim-end', label: 'Trim the end to the playhead', keys: [']'], run: () => trim('end') },
    { id: 'marker', label: 'Marker here', keys: ['M'], run: marker },
    { id: 'plan', label: 'Plan framings', keys: [], run: plan },
    { id: 'framing', label: 'Framing here', keys: ['F'], run: framing },
    { id: 'callout', label: 'Callout here', keys: ['X'], run: () => callout('text') },
    { id: 'cover', label: 'Cover here', keys: [], run: () => callout('cover') },
    { id: 'halo', label: 'Halo', keys: [], run: halo },
    { id: 'layout-corner', label: 'Layout of this step: presenter in the corner', keys: [], run: layout('corner') },
    { id: 'layout-side', label: 'Layout of this step: side by side', keys: [], run: layout('side') },
    { id: 'layout-presenter', label: 'Layout of this step: presenter only', keys: [], run: layout('presenter') },
    { id: 'layout-screen', label: 'Layout of this step: screen only', keys: [], run: layout('screen') },
    { id: 'presenter', label: 'Presenter settings', keys: [], run: () => get().select({ kind: 'presenter' }) },
    { id: 'snapping', label: 'Snapping on or off', keys: [], run: () => store.setState({ snapping: !get().snapping }) },
    { id: 'scale-up', label: 'Larger timeline scale', keys: ['+', '='], run: () => scale(1.5) },
    { id: 'scale-down', label: 'Smaller timeline scale', keys: ['-'], run: () => scale(1 / 1.5) },
    { id: 'scale-fit', label: 'Fit the timeline', keys: ['0'], run: () => store.setState({ pixelsPerSecond: 0 }) },
    { id: 'undo', label: 'Undo', keys: ['Mod+Z'], run: () => get().undo() },
    { id: 'redo', label: 'Redo', keys: ['Mod+Shift+Z'], run: () => get().redo() },
    { id: 'deselect', label: 'Select nothing', keys: ['Escape'], run: () => get().select(null) },
    { id: 'export', label: 'Export', keys: [], run: openers.exporting },
    { id: 'commands', label: 'Command list', keys: ['Mod+K'], run: openers.commands },
    { id: 'keys', label: 'Keys', keys: ['?'], run: openers.keys },
  ];
}
