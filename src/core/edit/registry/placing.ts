import { Type } from '@sinclair/typebox';
import { clipEnd } from '../../project/clip-time';
import { findClip } from '../../project/query';
import { footageOf } from '../../project/sources';
import { nullable, oneOf, Time } from '../../schema/parts';
import { pasteSnippet, type Snippet } from '../clipboard';
import { EditError } from '../error';
import { placeBeside, placeFootage } from '../place';
import { placeRetake } from '../retake';
import { placeKeptTake, type KeptTake } from '../take';
import { args, defineEdit, Instant } from './kind';

const NOT_LOOKED_AT = 'The recording was not looked at yet. Wait a moment, then place it.';

/** What comes onto the timeline from elsewhere: footage, copies, takes. */
export const PLACING_EDITS = {
  'place-footage': defineEdit({
    label: ({ parts }) => (parts.length > 1 ? `Place ${parts.length} recordings` : 'Place footage'),
    args: args({
      parts: Type.Array(
        Type.Object({
          footageId: Type.String(),
          part: nullable(Type.Object({ from: Time, to: Time })),
        }),
        { description: 'One after the other; a part is in footage ticks, null is all of it.' },
      ),
      at: nullable(Instant),
      mode: oneOf(['free', 'insert', 'overwrite']),
      laneId: nullable(Type.String()),
    }),
    run(p, { parts, at, mode, laneId }, { sources, newId }) {
      const ids: string[] = [];
      let time = at;
      for (const { footageId, part } of parts) {
        const facts = footageOf(sources, footageId);
        if (!facts) throw new EditError(NOT_LOOKED_AT);
        const placed = placeFootage(p, facts, time, newId, { mode, part, laneId });
        ids.push(...placed);
        if (time !== null) time = Math.max(...placed.map((id) => clipEnd(findClip(p, id)!.clip)));
      }
      return ids;
    },
  }),
  'place-recordings': defineEdit({
    label: ({ parts }) => (parts.length > 1 ? `Place ${parts.length} recordings` : 'Place footage'),
    args: args({
      parts: Type.Array(Type.Object({ footageId: Type.String(), at: Instant }), {
        description: 'Each whole, where it is told; where there is no room, on a lane of its own.',
      }),
    }),
    run: (p, { parts }, { sources, newId }) =>
      parts.flatMap(({ footageId, at }) => {
        const facts = footageOf(sources, footageId);
        if (!facts) throw new EditError(NOT_LOOKED_AT);
        return placeBeside(p, facts, at, newId);
      }),
  }),
  paste: defineEdit({
    label: 'Paste',
    args: args({
      snippet: Type.Unsafe<Snippet>({ type: 'object' }),
      at: Instant,
      mode: oneOf(['overwrite', 'insert']),
      laneId: nullable(Type.String()),
    }),
    run: (p, { snippet, at, mode, laneId }, { sources, newId }) =>
      pasteSnippet(p, sources, snippet, at, mode, laneId, newId),
  }),
  'place-retake': defineEdit({
    label: 'Retake',
    args: args({
      start: Instant,
      end: Instant,
      footageId: Type.String(),
      source: Type.Integer(),
      available: Time,
    }),
    run: (p, { start, end, ...recording }, { frame, newId }) =>
      placeRetake(p, { start, end }, recording, frame, newId),
  }),
  'place-take': defineEdit({
    label: 'Keep take',
    args: args({ take: Type.Unsafe<KeptTake>({ type: 'object' }) }),
    run: (p, { take }, { newId }) => placeKeptTake(p, take, newId),
  }),
} as const;
