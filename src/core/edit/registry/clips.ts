import { Type } from '@sinclair/typebox';
import { clipEnd, MOST_CLOCK } from '../../project/clip-time';
import { Clip, Transition } from '../../project/model';
import { findClip } from '../../project/query';
import { nullable } from '../../schema/parts';
import {
  liftClips,
  linkClips,
  moveClip,
  muteClips,
  setClipGain,
  shiftClip,
  splitAll,
  splitClip,
  trimClip,
  unlinkClip,
} from '../clips';
import { groupClips, renameGroup, ungroup } from '../groups';
import { lineUp } from '../line-up';
import { PACE_WAYS, paceToVoice } from '../pace';
import { canFollow, freezeAll, freezeOver, setSpeed } from '../retime';
import { setTransition } from '../transitions';
import { rollCut, slideClip, slipClip } from '../trim';
import { args, By, defineEdit, EndName, Ids, Instant } from './kind';

const clipId = Type.String();
const clipIds = Ids;

/** Cutting and trimming clips, and what holds them together. */
export const CLIP_EDITS = {
  'split-clip': defineEdit({
    label: 'Split',
    args: args({ clipId, time: Instant }),
    run: (p, { clipId, time }, { newId }) => splitClip(p, clipId, time, newId),
  }),
  'split-all': defineEdit({
    label: 'Split',
    args: args({ time: Instant }),
    run: (p, { time }, { newId }) => splitAll(p, time, newId),
  }),
  'trim-clip': defineEdit({
    label: ({ end }) => `Trim ${end}`,
    args: args({ clipId, end: EndName, time: Instant }),
    run: (p, { clipId, end, time }, { sources, frame }) =>
      trimClip(p, sources, clipId, end, time, frame),
  }),
  'trim-clip-by': defineEdit({
    label: ({ end }) => `Trim ${end}`,
    args: args({ clipId, end: EndName, by: By }),
    run(p, { clipId, end, by }, { sources, frame }) {
      const clip = findClip(p, clipId)?.clip;
      const edge = clip ? (end === 'start' ? clip.start : clipEnd(clip)) : 0;
      trimClip(p, sources, clipId, end, edge + by, frame);
    },
  }),
  'move-clip': defineEdit({
    label: 'Move',
    args: args({ clipId, start: Instant, laneId: nullable(Type.String()) }),
    run: (p, { clipId, start, laneId }) => moveClip(p, clipId, start, laneId ?? undefined),
  }),
  'shift-clip': defineEdit({
    label: 'Shift against its links',
    args: args({ clipId, by: By }),
    run: (p, { clipId, by }) => shiftClip(p, clipId, by),
  }),
  'line-up-clips': defineEdit({
    label: 'Line up',
    args: args({
      parts: Type.Array(
        Type.Object({
          ...{ clipId, by: By },
          clock: nullable(
            Type.Number({
              exclusiveMinimum: -MOST_CLOCK,
              exclusiveMaximum: MOST_CLOCK,
              description:
                'Millionths that its recording takes longer by the clock that counts; null leaves ' +
                'its speed.',
            }),
          ),
        }),
        {
          description: 'Clips that are moved, each with what is linked to it of its recording.',
        },
      ),
    }),
    run: (p, { parts }, { sources, newId }) => lineUp(p, parts, sources, newId),
  }),
  'lift-clips': defineEdit({
    label: 'Lift',
    args: args({ clipIds }),
    run: (p, { clipIds }) => liftClips(p, clipIds),
  }),
  'lift-footage': defineEdit({
    label: 'Take out footage',
    args: args({ footageId: Type.String() }),
    run(p, { footageId }) {
      const clips = p.lanes.flatMap(({ clips }) => clips.filter((c) => c.footageId === footageId));
      if (clips.length)
        liftClips(
          p,
          clips.map((clip) => clip.id),
        );
      p.callouts = p.callouts.filter(
        (one) => one.kind !== 'picture' || one.footageId !== footageId,
      );
    },
  }),
  'roll-cut': defineEdit({
    label: 'Roll the cut',
    args: args({ clipId, by: By }),
    run: (p, { clipId, by }, { sources, frame }) => rollCut(p, sources, clipId, by, frame),
  }),
  'slip-clip': defineEdit({
    label: 'Slip contents',
    args: args({ clipId, by: By }),
    run: (p, { clipId, by }, { sources }) => slipClip(p, sources, clipId, by),
  }),
  'slide-clip': defineEdit({
    label: 'Slide clip',
    args: args({ clipId, by: By }),
    run: (p, { clipId, by }, { sources, frame }) => slideClip(p, sources, clipId, by, frame),
  }),
  'link-clips': defineEdit({
    label: 'Link',
    args: args({ clipIds }),
    run: (p, { clipIds }, { newId }) => linkClips(p, clipIds, newId),
  }),
  'unlink-clip': defineEdit({
    label: 'Unlink',
    args: args({ clipId }),
    run: (p, { clipId }) => unlinkClip(p, clipId),
  }),
  'group-clips': defineEdit({
    label: 'Group',
    args: args({ clipIds, name: nullable(Type.String({ maxLength: 200 })) }),
    run: (p, { clipIds, name }, { newId }) =>
      groupClips(p, clipIds, name ?? `Group ${p.groups.length + 1}`, newId),
  }),
  ungroup: defineEdit({
    label: 'Ungroup',
    args: args({ groupId: Type.String() }),
    run: (p, { groupId }) => ungroup(p, groupId),
  }),
  'rename-group': defineEdit({
    label: 'Group name',
    args: args({ groupId: Type.String(), name: Type.String({ maxLength: 200 }) }),
    run: (p, { groupId, name }) => renameGroup(p, groupId, name),
  }),
  'mute-clips': defineEdit({
    label: 'Mute clip',
    args: args({ clipIds, muted: Type.Boolean() }),
    run: (p, { clipIds, muted }) => muteClips(p, clipIds, muted),
  }),
  'set-clip-level': defineEdit({
    label: 'Clip level',
    args: args({ clipId, gain: Clip.properties.gain }),
    run: (p, { clipId, gain }) => setClipGain(p, clipId, gain),
  }),
  'set-speed': defineEdit({
    label: 'Speed',
    args: args({ clipId, speed: Type.Number({ minimum: 0.1, maximum: 16 }) }),
    // What follows moves along wherever nothing else would be cut.
    run: (p, { clipId, speed }, { frame, newId }) =>
      setSpeed(p, clipId, speed, canFollow(p, clipId, speed) ? 'move' : 'stay', frame, newId),
  }),
  'freeze-clip': defineEdit({
    label: 'Freeze frame',
    args: args({ clipId, time: Instant, length: By }),
    run: (p, { clipId, time, length }, { sources, frame, newId }) => [
      freezeOver(p, sources, clipId, time, length, frame, newId),
    ],
  }),
  'freeze-all': defineEdit({
    label: 'Freeze frame',
    args: args({ time: Instant, length: By }),
    run: (p, { time, length }, { sources, frame, newId }) =>
      freezeAll(p, sources, time, length, frame, newId),
  }),
  'pace-to-voice': defineEdit({
    label: 'Pace to voice',
    args: args({ clipId, way: Type.Unsafe<(typeof PACE_WAYS)[number]>({ enum: [...PACE_WAYS] }) }),
    run: (p, { clipId, way }, { sources, frame, newId }) =>
      paceToVoice(p, sources, clipId, way, frame, newId),
  }),
  'set-transition': defineEdit({
    label: 'Transition',
    args: args({ clipId, end: EndName, transition: nullable(Transition) }),
    run: (p, { clipId, end, transition }, { sources, frame }) =>
      setTransition(p, sources, clipId, end, transition, frame),
  }),
} as const;
