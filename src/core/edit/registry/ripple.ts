import { Type } from '@sinclair/typebox';
import { nullable } from '../../schema/parts';
import { liftClips } from '../clips';
import { liftRange, rippleDeleteRange } from '../range';
import {
  closeAllGaps,
  closeGap,
  openJoin,
  rippleDelete,
  rippleDeleteClips,
  rippleTrim,
} from '../ripple';
import { removeSpan } from '../spans';
import { args, By, defineEdit, EndName, Ids, Instant, LaneIds } from './kind';

/** Edits in which what follows moves, and those of a range. */
export const RIPPLE_EDITS = {
  'ripple-delete': defineEdit({
    label: 'Ripple delete',
    args: args({ start: Instant, end: Instant }),
    run: (p, range, { newId }) => rippleDelete(p, range, newId),
  }),
  'ripple-delete-clips': defineEdit({
    label: 'Ripple delete',
    args: args({ clipIds: Ids }),
    run: (p, { clipIds }, { newId }) => rippleDeleteClips(p, clipIds, newId),
  }),
  'ripple-delete-range': defineEdit({
    label: 'Ripple delete',
    args: args({ start: Instant, end: Instant, laneIds: LaneIds }),
    run: (p, { laneIds, ...range }, { newId }) => rippleDeleteRange(p, range, laneIds, newId),
  }),
  'lift-range': defineEdit({
    label: 'Lift',
    args: args({ start: Instant, end: Instant, laneIds: LaneIds }),
    run: (p, { laneIds, ...range }, { newId }) => liftRange(p, range, laneIds, newId),
  }),
  'ripple-trim': defineEdit({
    label: ({ end }) => `Ripple trim ${end}`,
    args: args({ clipId: Type.String(), end: EndName, time: Instant }),
    run: (p, { clipId, end, time }, { sources, frame, newId }) =>
      rippleTrim(p, sources, clipId, end, time, frame, newId),
  }),
  'close-gap': defineEdit({
    label: 'Close gap',
    args: args({ laneId: Type.String(), time: Instant }),
    run: (p, { laneId, time }, { newId }) => closeGap(p, laneId, time, newId),
  }),
  'close-all-gaps': defineEdit({
    label: 'Close all gaps',
    args: args({}),
    run: (p, _args, { newId }) => closeAllGaps(p, newId),
  }),
  'open-join': defineEdit({
    label: 'Open join',
    args: args({ time: Instant, length: nullable(By) }),
    run: (p, { time, length }, { newId }) => {
      if (length === null || length > 0) openJoin(p, time, length ?? Infinity, newId);
    },
  }),
  'remove-things': defineEdit({
    label: ({ clipIds, spanIds, ripple }) => {
      if (clipIds.length) return ripple ? 'Ripple delete' : 'Lift';
      return spanIds.length > 1 ? 'Remove things' : 'Remove';
    },
    args: args({ clipIds: Ids, spanIds: Ids, ripple: Type.Boolean() }),
    run(p, { clipIds, spanIds, ripple }, { newId }) {
      for (const id of spanIds) removeSpan(p, id);
      if (!clipIds.length) return;
      if (ripple) rippleDeleteClips(p, clipIds, newId);
      else liftClips(p, clipIds);
    },
  }),
} as const;
