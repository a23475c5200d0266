import { nanoid } from 'nanoid';
import { detachAudio } from '@/core/edit/levels';
import {
  liftClips,
  linkClips,
  muteClips,
  shiftClip,
  splitAll,
  splitClip,
  trimClip,
  unlinkClip,
  type End,
} from '@/core/edit/clips';
import { groupClips, groupMembers, ungroup } from '@/core/edit/groups';
import { removeMarker } from '@/core/edit/markers';
import { removeStep } from '@/core/edit/outline';
import { liftRange, rippleDeleteRange } from '@/core/edit/range';
import { PACE_WAYS, paceToVoice, type PaceWay } from '@/core/edit/pace';
import {
  closeAllGaps,
  closeGap,
  gapAt,
  openJoin,
  removedAt,
  rippleDelete,
  rippleDeleteClips,
  rippleTrim,
} from '@/core/edit/ripple';
import { removeSpan } from '@/core/edit/spans';
import { DEFAULT_TRANSITION, setTransition } from '@/core/edit/transitions';
import { nearestCut, rollCut, slideClip, slipClip } from '@/core/edit/trim';
import { clipEnd } from '@/core/project/clip-time';
import { findClip, isPictureLane } from '@/core/project/query';
import type { Project, Transition } from '@/core/project/model';
import type { Ticks } from '@/core/time/ticks';
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
  const onClip = (label: string, edit: (draft: Project, id: string) => void, merge = false) => {
    const clip = c.clipHere;
    if (!clip) return tellFault('Put the playhead on a clip, or select one, first.');
    c.state.edit(label, (draft) => edit(draft, clip.id), merge);
  };
  const split = () => {
    const ids = selectedClips(c.state);
    c.state.edit('Split', (draft) =>
      ids.length === 1
        ? splitClip(draft, ids[0]!, c.here, nanoid)
        : splitAll(draft, c.here, nanoid),
    );
  };
  const remove = (ripple: boolean) => {
    const { selection, edit, rangeLanes, also } = c.state;
    const range = rangeOf(c.state);
    if (range && !selection)
      return edit(ripple ? 'Ripple delete' : 'Lift', (draft) =>
        ripple
          ? rippleDeleteRange(draft, range, rangeLanes, nanoid)
          : liftRange(draft, range, rangeLanes, nanoid),
      );
    if (!selection || !('id' in selection))
      return tellFault(
        'Select a clip or another thing on the timeline first, or set a range with I and O.',
      );
    if (selection.kind === 'step')
      return edit('Remove step', (draft) => removeStep(draft, selection.id));
    if (selection.kind === 'marker')
      return edit('Remove marker', (draft) => removeMarker(draft, selection.id));
    if (selection.kind === 'lane')
      return tellFault('To remove a lane, use the button in its Details.');
    const clips = selectedClips(c.state);
    const spans = selectedSpans(c.state);
    edit(
      clips.length ? (ripple ? 'Ripple delete' : 'Lift') : also.length ? 'Remove things' : 'Remove',
      (draft) => {
        for (const id of spans) removeSpan(draft, id);
        if (!clips.length) return;
        if (!ripple) return liftClips(draft, clips);
        rippleDeleteClips(draft, clips, nanoid);
      },
    );
  };
  const trimHere = (end: End) =>
    onClip(`Trim ${end}`, (draft, id) =>
      trimClip(draft, c.state.sources, id, end, c.here, c.frame),
    );
  const rippleTrimHere = (end: End) =>
    onClip(`Ripple trim ${end}`, (draft, id) =>
      rippleTrim(draft, c.state.sources, id, end, c.here, c.frame, nanoid),
    );
  const trimBy = (end: End, frames: number) => () =>
    onClip(
      `Trim ${end}`,
      (draft, id) => {
        const { clip } = findClip(draft, id)!;
        const edge = end === 'start' ? clip.start : clipEnd(clip);
        trimClip(draft, c.state.sources, id, end, edge + frames * c.frame, c.frame);
      },
      true,
    );
  const byFrame = (label: string, edit: (draft: Project, id: string, by: Ticks) => void) =>
    ([-1, 1] as const).map((sign) => ({
      id: `${label.toLowerCase().replaceAll(' ', '-')}-${sign < 0 ? 'back' : 'on'}`,
      label: `${label} one frame ${sign < 0 ? 'earlier' : 'later'}`,
      keys: [],
      run: () => onClip(label, (draft, id) => edit(draft, id, sign * c.frame), true),
    }));
  const gap = () => {
    const { selection, project, playhead } = c.state;
    const lanes =
      selection?.kind === 'lane'
        ? project.lanes.filter((l) => l.id === selection.id)
        : project.lanes;
    const lane = lanes.find((l) => !l.locked && gapAt(l, playhead));
    if (!lane) return tellFault('There is no gap under the playhead.');
    c.state.edit('Close gap', (draft) => closeGap(draft, lane.id, c.state.playhead, nanoid));
  };
  const open = () => {
    const joins = c.state.project.lanes.flatMap((l) =>
      l.clips.flatMap((clip, i) =>
        !l.locked && removedAt(l.clips[i - 1], clip) > 0 ? [clip.start] : [],
      ),
    );
    const near = joins.sort((a, b) => Math.abs(a - c.here) - Math.abs(b - c.here))[0];
    if (near === undefined) return tellFault('There is no join with footage taken out.');
    c.state.edit('Open join', (draft) => openJoin(draft, near, Infinity, nanoid));
  };
  const group = () =>
    c.state.edit(
      'Group',
      (draft) =>
        void groupClips(draft, selectedClips(c.state), `Group ${draft.groups.length + 1}`, nanoid),
    );
  const ungroupHere = () => {
    const found = c.clipHere?.group;
    if (!found) return tellFault('Select a group first.');
    c.state.edit('Ungroup', (draft) => ungroup(draft, found));
    c.store.setState({ openGroup: null });
  };
  const openGroup = () => {
    const found = c.clipHere?.group ?? null;
    if (!found) return tellFault('Select a group first.');
    c.store.setState({ openGroup: c.state.openGroup === found ? null : found });
  };
  const transition = (kind: Transition['kind']) => () => {
    const { project, sources, selection, edit } = c.state;
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
    let length = 0;
    if (
      edit(
        'Transition',
        (draft) =>
          (length = setTransition(
            draft,
            sources,
            cut.id,
            'start',
            { ...DEFAULT_TRANSITION, kind },
            c.frame,
          )),
      )
    ) {
      c.state.select({ kind: 'clip', id: cut.id });
      if (length < DEFAULT_TRANSITION.duration)
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
    c.state.edit(before ? 'Remove what is before' : 'Remove what is after', (draft) =>
      rippleDelete(draft, range, nanoid),
    );
    if (before) c.seek(0);
  };

  return [
    { id: 'split', label: 'Split at the playhead', keys: ['B'], run: split },
    {
      id: 'split-all',
      label: 'Split all unlocked lanes at the playhead',
      keys: ['Shift+B'],
      run: () => void c.state.edit('Split', (draft) => splitAll(draft, c.here, nanoid)),
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
      run: () => void c.state.edit('Close all gaps', (draft) => closeAllGaps(draft, nanoid)),
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
    ...byFrame('Roll the cut', (draft, id, by) => rollCut(draft, c.state.sources, id, by, c.frame)),
    ...byFrame('Slip contents', (draft, id, by) => slipClip(draft, c.state.sources, id, by)),
    ...byFrame('Slide clip', (draft, id, by) => slideClip(draft, c.state.sources, id, by, c.frame)),
    ...byFrame('Shift against its links', (draft, id, by) => shiftClip(draft, id, by)),
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
      run: () =>
        void c.state.edit('Link', (draft) => linkClips(draft, selectedClips(c.state), nanoid)),
    },
    { id: 'unlink', label: 'Unlink', keys: [], run: () => onClip('Unlink', unlinkClip) },
    {
      id: 'detach',
      label: 'Detach audio',
      keys: [],
      run: () =>
        onClip('Detach audio', (draft, id) => detachAudio(draft, c.state.sources, id, nanoid)),
    },
    {
      id: 'mute',
      label: 'Mute or unmute the clip',
      keys: [],
      run: () => {
        const ids = selectedClips(c.state);
        const first = ids[0] && findClip(c.state.project, ids[0])?.clip;
        if (!first) return tellFault('Select a clip with sound first.');
        c.state.edit('Mute clip', (draft) => muteClips(draft, ids, !first.muted));
      },
    },
    ...PACE_WAYS.map((way) => ({
      id: `pace-${way}`,
      label: PACE_LABELS[way],
      keys: [],
      run: () =>
        onClip('Pace to voice', (draft, id) =>
          paceToVoice(draft, c.state.sources, id, way, c.frame, nanoid),
        ),
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
