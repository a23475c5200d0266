import { Type } from '@sinclair/typebox';
import { planProject } from '../../framing/plan';
import { Taste, USUAL_TASTE } from '../../framing/taste';
import { LayoutSpan } from '../../layout/model';
import { Framing, Layout, Marker, PointerSpan } from '../../project/model';
import { findClip } from '../../project/query';
import type { SpanList } from '../../project/span-lists';
import { nullable, Time } from '../../schema/parts';
import { moveClips } from '../clips';
import { addMarker, changeMarker, moveMarker, removeMarker } from '../markers';
import { makeRoomToTurn, showWhole } from '../framings';
import { replaceFramings } from '../settings';
import { pasteSpan, type CopiedSpan } from '../span-copy';
import {
  addSpan,
  changeSpan,
  findSpan,
  keepClear,
  moveSpans,
  removeSpan,
  setLayout,
  timeSpan,
} from '../spans';
import { TICKS_PER_SECOND } from '../../time/ticks';
import { args, By, defineEdit, Ids, Instant } from './kind';
import { changeOf, nameOf } from './span-parts';

const id = Type.String();

const PASTED: Readonly<Record<SpanList, string>> = {
  ...{ framings: 'framing', callouts: 'callout', pointer: 'pointer looks', layouts: 'layout' },
};

/** What stands beside the clips: framings, layouts, looks of the pointer, markers. */
export const SPAN_EDITS = {
  'add-framing': defineEdit({
    label: 'Framing here',
    args: args({ framing: Framing }),
    run: (p, { framing }) => addSpan(p, 'framings', framing),
  }),
  'change-framing': defineEdit({
    label: ({ change }) =>
      'turn' in change
        ? 'Turn framing'
        : 'rect' in change
          ? 'Move or size framing'
          : 'endRect' in change
            ? 'Slow push'
            : 'pinned' in change
              ? 'Pin framing'
              : 'Framing ramp',
    args: args({ id, change: changeOf<'framings'>() }),
    run(p, { id, change }, { sources }) {
      changeSpan(p, 'framings', id, change);
      makeRoomToTurn(p, sources, id);
    },
  }),
  'show-whole': defineEdit({
    label: 'Whole screen here',
    args: args({ time: Instant }),
    run: (p, { time }) => showWhole(p, time, TICKS_PER_SECOND),
  }),
  'plan-framings': defineEdit({
    label: 'Plan framings',
    args: args({
      taste: Type.Partial(Taste, { description: 'What is not said is as usual.' }),
      range: nullable(Type.Object({ start: Instant, end: Instant }), {
        description: 'Framings beyond it stay; null for the whole project.',
      }),
    }),
    run(p, { taste, range }, { sources, newId }) {
      const plan = planProject(p, sources, newId, { taste: { ...USUAL_TASTE, ...taste }, range });
      replaceFramings(p, plan.framings);
      return plan;
    },
  }),
  'set-framings': defineEdit({
    label: 'Plan framings',
    args: args({ framings: Type.Array(Framing, { maxItems: 100_000 }) }),
    run: (p, { framings }) => replaceFramings(p, framings),
  }),
  'add-pointer-looks': defineEdit({
    label: 'Pointer looks',
    args: args({ span: PointerSpan }),
    run: (p, { span }) => addSpan(p, 'pointer', span),
  }),
  'change-pointer-looks': defineEdit({
    label: 'Pointer looks',
    args: args({ id, change: changeOf<'pointer'>() }),
    run: (p, { id, change }) => changeSpan(p, 'pointer', id, change),
  }),
  'set-layout': defineEdit({
    label: 'Layout',
    args: args({
      ...{ start: Instant, end: Instant, layout: Layout },
      glide: Type.Optional({ ...Time, description: 'Ticks to go over to it; a cut without.' }),
      dissolves: LayoutSpan.properties.dissolves,
    }),
    run: (p, { start, end, layout, ...way }, { newId }) =>
      setLayout(p, { start, end }, layout, newId, way),
  }),
  'set-layouts': defineEdit({
    label: ({ parts }) => (parts.length === 1 ? 'Layout' : `${parts.length} layouts`),
    args: args({
      parts: Type.Array(Type.Object({ start: Instant, end: Instant, layout: Layout, glide: Time })),
    }),
    run(p, { parts }, { newId }) {
      for (const { layout, glide, ...range } of parts)
        setLayout(p, range, layout, newId, { glide });
    },
  }),
  'keep-clear': defineEdit({
    label: ({ spans }) => (spans.length ? 'Keep clear' : 'Stay in the corner'),
    args: args({
      ...{ start: Instant, end: Instant },
      spans: Type.Array(
        Type.Object({ start: Instant, end: Instant, layout: Layout, glide: Time }),
        { description: 'Where the presenter stands elsewhere; they replace those set before.' },
      ),
    }),
    run: (p, { start, end, spans }, { newId }) => keepClear(p, { start, end }, spans, newId),
  }),
  'change-layout': defineEdit({
    label: 'Layout',
    args: args({ id, change: changeOf<'layouts'>() }),
    run: (p, { id, change }) => changeSpan(p, 'layouts', id, change),
  }),
  'time-span': defineEdit({
    label: ({ id }, p) => `Time of ${nameOf(p, id)}`,
    args: args({ id, start: Instant, end: Instant }),
    run: (p, { id, start, end }, { frame }) => timeSpan(p, id, start, end, frame),
  }),
  'move-things': defineEdit({
    label: ({ ids }, p) =>
      ids.length === 1 && findSpan(p, ids[0]!) ? `Move ${nameOf(p, ids[0]!)}` : 'Move',
    args: args({
      ids: { ...Ids, description: 'Ids of clips and of what stands beside them.' },
      by: By,
      lanes: nullable(Type.Object({ from: Type.String(), to: Type.String() })),
    }),
    run(p, { ids, by, lanes }) {
      const clips = ids.filter((id) => findClip(p, id));
      if (clips.length) moveClips(p, clips, by, lanes ?? undefined, ids);
      moveSpans(
        p,
        ids.filter((id) => findSpan(p, id)),
        by,
      );
    },
  }),
  'paste-span': defineEdit({
    label: ({ copied }) => `Paste ${PASTED[copied.list]}`,
    args: args({
      copied: Type.Unsafe<CopiedSpan>({
        type: 'object',
        description: 'The list, the span, and for a framing the view of its whole recording.',
      }),
      time: Instant,
      footageId: nullable(Type.String(), { description: 'The recording at that instant.' }),
    }),
    run: (p, { copied, time, footageId }, { sources, newId }) =>
      pasteSpan(p, sources, structuredClone(copied), time, footageId, newId),
  }),
  'remove-span': defineEdit({
    label: ({ id }, p) => `Remove ${nameOf(p, id)}`,
    args: args({ id }),
    run: (p, { id }) => removeSpan(p, id),
  }),
  'add-marker': defineEdit({
    label: 'Marker here',
    args: args({ marker: Marker }),
    run: (p, { marker }) => addMarker(p, marker),
  }),
  'change-marker': defineEdit({
    label: 'Change marker',
    args: args({ id, change: Type.Partial(Type.Pick(Marker, ['name', 'color'])) }),
    run: (p, { id, change }) => changeMarker(p, id, change),
  }),
  'move-marker': defineEdit({
    label: 'Move marker',
    args: args({ id, time: Instant }),
    run: (p, { id, time }) => moveMarker(p, id, time),
  }),
  'remove-marker': defineEdit({
    label: 'Remove marker',
    args: args({ id }),
    run: (p, { id }) => removeMarker(p, id),
  }),
} as const;
