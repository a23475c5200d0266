import { type End } from '@/core/edit/clips';
import { groupMembers } from '@/core/edit/groups';
import { PACE_WAYS, type PaceWay } from '@/core/edit/pace';
import { gapAt, removedAt } from '@/core/edit/ripple';
import { DEFAULT_TRANSITION } from '@/core/edit/transitions';
import { nearestCut } from '@/core/edit/trim';
import { clipEnd } from '@/core/project/clip-time';
import { findClip, isPictureLane } from '@/core/project/query';
import type { EditCall } from '@/core/edit/registry';
import type { Transition } from '@/core/project/model';
import { tell, tellFault } from '../../shell/notices-store';
import { rangeOf, selectedClips, selectedSpans } from '../store';
import type { Command, CommandContext } from './context';

const PACE_LABELS: Record<PaceWay, string> = {
  stretch: 'Pace to voice: stretch',
  cut: 'Pace to voice: cut stillness',
  freeze: 'Pace to voice: hold the end',
};

/** Cutting, trimming, and what holds clips together. */
export function cutCommands(c: CommandContext): Command[] {
  const onClip = (edit: (clipId: string) => EditCall) => {
    const clip = c.clipHere;
    if (!clip) return tellFault('Put the playhead on a clip, or select one, first.');
    const [id, args] = edit(clip.id);
    c.state.apply(id, args);
  };
  /** One of many small steps; the last one that was possible is told from the others. */
  const nudge = (edit: (clipId: string) => EditCall) => () => {
    const clip = c.clipHere;
    if (!clip) return tellFault('Put the playhead on a clip, or select one, first.');
    const before = c.state.project;
    const [id, args] = edit(clip.id);
    if (c.state.apply(id, args, true) && c.state.project === before)
      tellFault('It can’t go further that way: there is no footage or no room left.');
  };
  const split = () => {
    const ids = selectedClips(c.state);
    if (ids.length === 1) c.state.apply('split-clip', { clipId: ids[0]!, time: c.here });
    else c.state.apply('split-all', { time: c.here });
  };
  const remove = (ripple: boolean) => {
    const { selection, apply, rangeLanes } = c.state;
    const range = rangeOf(c.state);
    if (range && !selection) {
      const laneIds = rangeLanes && [...rangeLanes];
      return apply(ripple ? 'ripple-delete-range' : 'lift-range', { ...range, laneIds });
    }
    if (!selection || !('id' in selection))
      return tellFault(
        'Select a clip or another thing on the timeline first, or set an In and an Out point.',
      );
    if (selection.kind === 'step') return apply('remove-step', { id: selection.id });
    if (selection.kind === 'marker') return apply('remove-marker', { id: selection.id });
    if (selection.kind === 'lane')
      return tellFault('To remove a lane, use the button in its Details.');
    const clipIds = selectedClips(c.state);
    apply('remove-things', { clipIds, spanIds: selectedSpans(c.state), ripple });
  };
  const trimWith = (edit: 'trim-clip' | 'ripple-trim', end: End) => {
    const chosen = c.state.selection?.kind === 'clip';
    const clip = c.clipHere;
    if (!clip) return tellFault('Put the playhead on a clip, or select one, first.');
    const done = c.state.apply(edit, { clipId: clip.id, end, time: c.here });
    const lane = findClip(c.state.project, clip.id)?.lane.name;
    // Nobody said which was meant.
    if (done && !chosen)
      tell(
        `The clip on ${lane} was trimmed, and what is linked to it. Select another first to trim that one.`,
      );
  };
  const trimHere = (end: End) => trimWith('trim-clip', end);
  const rippleTrimHere = (end: End) => trimWith('ripple-trim', end);
  const trimBy = (end: End, frames: number) =>
    nudge((clipId) => ['trim-clip-by', { clipId, end, by: frames * c.frame }]);
  const byFrame = (label: string, id: 'roll-cut' | 'slip-clip' | 'slide-clip' | 'shift-clip') =>
    ([-1, 1] as const).map((sign) => ({
      id: `${label.toLowerCase().replaceAll(' ', '-')}-${sign < 0 ? 'back' : 'on'}`,
      label: `${label} one frame ${sign < 0 ? 'earlier' : 'later'}`,
      keys: [],
      run: nudge((clipId) => [id, { clipId, by: sign * c.frame }]),
    }));
  const gap = () => {
    const { playhead } = c;
    const { selection, project } = c.state;
    const lanes =
      selection?.kind === 'lane'
        ? project.lanes.filter((l) => l.id === selection.id)
        : project.lanes;
    const lane = lanes.find((l) => !l.locked && gapAt(l, playhead));
    if (!lane) return tellFault('There is no gap under the playhead.');
    c.state.apply('close-gap', { laneId: lane.id, time: c.playhead });
  };
  const open = () => {
    const joins = c.state.project.lanes.flatMap((l) =>
      l.clips.flatMap((clip, i) =>
        !l.locked && removedAt(l.clips[i - 1], clip) > 0 ? [clip.start] : [],
      ),
    );
    const near = joins.sort((a, b) => Math.abs(a - c.here) - Math.abs(b - c.here))[0];
    if (near === undefined) return tellFault('There is no join with footage taken out.');
    c.state.apply('open-join', { time: near, length: null });
  };
  const group = () => c.state.apply('group-clips', { clipIds: selectedClips(c.state), name: null });
  const ungroupHere = () => {
    const found = c.clipHere?.group;
    if (!found) return tellFault('Select a group first.');
    c.state.apply('ungroup', { groupId: found });
    c.store.setState({ openGroup: null });
  };
  const openGroup = () => {
    const found = c.clipHere?.group ?? null;
    if (!found) return tellFault('Select a group first.');
    c.store.setState({ openGroup: c.state.openGroup === found ? null : found });
  };
  const transition = (kind: Transition['kind']) => () => {
    const { project, selection, apply } = c.state;
    const selected = selection?.kind === 'clip' ? findClip(project, selection.id) : null;
    const lane =
      selected?.lane ??
      project.lanes.filter((l) => !l.locked && isPictureLane(l)).find((l) => nearestCut(l, c.here));
    const cut =
      lane &&
      nearestCut(
        lane,
        selected
          ? c.here >= selected.clip.start && c.here <= clipEnd(selected.clip)
            ? c.here
            : selected.clip.start
          : c.here,
      );
    if (!cut)
      return tellFault(
        'There is no cut between two touching clips on this lane. Set a fade at a free end in the clip’s Details.',
      );
    const done = apply('set-transition', {
      clipId: cut.id,
      end: 'start',
      transition: { ...DEFAULT_TRANSITION, kind },
    });
    if (done) {
      c.state.select({ kind: 'clip', id: cut.id });
      if (done.result < DEFAULT_TRANSITION.duration)
        tell(
          'The transition is shorter than usual, since the footage beyond the cut allows no more.',
        );
    }
  };
  const selectAll = () => {
    const ids = c.state.project.lanes
      .filter((l) => !l.locked)
      .flatMap((l) => l.clips.map((clip) => clip.id));
    const [id, ...also] = ids;
    if (id) c.state.select({ kind: 'clip', id }, also);
  };
  const selectAfter = () => {
    const ids = c.state.project.lanes
      .filter((l) => !l.locked)
      .flatMap((l) => l.clips.filter((clip) => clip.start >= c.here).map((clip) => clip.id));
    const [id, ...also] = ids;
    if (id) c.state.select({ kind: 'clip', id }, also);
    else tellFault('No clip begins after the playhead.');
  };
  const rippleAround = (before: boolean) => () => {
    const all = c.state.project.lanes.flatMap((l) => (l.locked ? [] : l.clips));
    const end = Math.max(0, ...all.map(clipEnd));
    const range = before ? { start: 0, end: c.here } : { start: c.here, end };
    if (range.end <= range.start)
      return tellFault(
        before ? 'There is nothing before the playhead.' : 'There is nothing after the playhead.',
      );
    c.state.apply('ripple-delete', range);
    if (before) c.seek(0);
  };

  return [
    { id: 'split', label: 'Split at the playhead', keys: ['B'], run: split },
    {
      id: 'split-all',
      label: 'Split all unlocked lanes at the playhead',
      keys: ['Shift+B'],
      run: () => void c.state.apply('split-all', { time: c.here }),
    },
    {
      id: 'lift',
      label: 'Lift (remove, leave the gap)',
      keys: ['Delete', 'Backspace'],
      run: () => void remove(false),
    },
    {
      id: 'ripple',
      label: 'Ripple delete (remove, close the gap)',
      keys: ['Shift+Delete', 'Shift+Backspace'],
      run: () => void remove(true),
    },
    {
      id: 'remove-before',
      label: 'Ripple delete all before the playhead',
      keys: [],
      run: rippleAround(true),
    },
    {
      id: 'remove-after',
      label: 'Ripple delete all after the playhead',
      keys: [],
      run: rippleAround(false),
    },
    { id: 'close-gap', label: 'Close gap at the playhead', keys: [], run: gap },
    {
      id: 'close-gaps',
      label: 'Close all gaps',
      keys: [],
      run: () => void c.state.apply('close-all-gaps', {}),
    },
    {
      id: 'open-join',
      label: 'Open the nearest join (bring back what was taken out)',
      keys: [],
      run: open,
    },
    {
      id: 'trim-start',
      label: 'Trim the start to the playhead',
      keys: ['['],
      run: () => trimHere('start'),
    },
    {
      id: 'trim-end',
      label: 'Trim the end to the playhead',
      keys: [']'],
      run: () => trimHere('end'),
    },
    {
      id: 'ripple-trim-start',
      label: 'Ripple trim the start to the playhead',
      keys: ['{'],
      run: () => rippleTrimHere('start'),
    },
    {
      id: 'ripple-trim-end',
      label: 'Ripple trim the end to the playhead',
      keys: ['}'],
      run: () => rippleTrimHere('end'),
    },
    ...(['start', 'end'] as const).flatMap((end) => [
      {
        id: `trim-${end}-back`,
        label: `Trim the ${end} one frame earlier`,
        keys: [],
        run: trimBy(end, -1),
      },
      {
        id: `trim-${end}-on`,
        label: `Trim the ${end} one frame later`,
        keys: [],
        run: trimBy(end, 1),
      },
    ]),
    ...byFrame('Roll the cut', 'roll-cut'),
    ...byFrame('Slip contents', 'slip-clip'),
    ...byFrame('Slide clip', 'slide-clip'),
    ...byFrame('Shift against its links', 'shift-clip'),
    { id: 'select-all', label: 'Select all clips', keys: ['Mod+A'], run: selectAll },
    {
      id: 'select-after',
      label: 'Select all clips after the playhead',
      keys: [],
      run: selectAfter,
    },
    { id: 'group', label: 'Group', keys: ['Mod+G'], run: () => void group() },
    { id: 'ungroup', label: 'Ungroup', keys: ['Mod+Shift+G'], run: ungroupHere },
    { id: 'open-group', label: 'Open or close the group', keys: [], run: openGroup },
    {
      id: 'link',
      label: 'Link clips',
      keys: [],
      run: () => void c.state.apply('link-clips', { clipIds: selectedClips(c.state) }),
    },
    {
      id: 'line-up',
      label: 'Line up by sound',
      keys: [],
      run: () => void c.state.lineUpBySound(selectedClips(c.state)),
    },
    {
      id: 'unlink',
      label: 'Unlink',
      keys: [],
      run: () => onClip((clipId) => ['unlink-clip', { clipId }]),
    },
    {
      id: 'detach',
      label: 'Sound on its own lane',
      keys: [],
      run: () => onClip((clipId) => ['detach-audio', { clipId }]),
    },
    {
      id: 'mute',
      label: 'Mute or unmute the clip',
      keys: [],
      run: () => {
        const ids = selectedClips(c.state);
        const first = ids[0] && findClip(c.state.project, ids[0])?.clip;
        if (!first) return tellFault('Select a clip with sound first.');
        c.state.apply('mute-clips', { clipIds: ids, muted: !first.muted });
      },
    },
    ...PACE_WAYS.map((way) => ({
      id: `pace-${way}`,
      label: PACE_LABELS[way],
      keys: [],
      run: () => onClip((clipId) => ['pace-to-voice', { clipId, way }]),
    })),
    { id: 'freeze', label: 'Freeze frame at the playhead', keys: [], run: c.open('freeze') },
    { id: 'dissolve', label: 'Dissolve at the nearest cut', keys: [], run: transition('dissolve') },
    {
      id: 'fade',
      label: 'Fade through a colour at the nearest cut',
      keys: [],
      run: transition('fade'),
    },
    { id: 'slide-in', label: 'Slide at the nearest cut', keys: [], run: transition('slide') },
    { id: 'push-in', label: 'Push at the nearest cut', keys: [], run: transition('push') },
    {
      id: 'select-group',
      label: 'Select the whole group',
      keys: [],
      run: () => {
        const found = c.clipHere?.group;
        const [id, ...also] = found ? groupMembers(c.state.project, found) : [];
        if (id) c.state.select({ kind: 'clip', id }, also);
        else tellFault('The clip belongs to no group.');
      },
    },
  ];
}
