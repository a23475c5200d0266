import { Type } from '@sinclair/typebox';
import { FollowPath } from '../../callout/follow-path';
import { dropping, keeping, Pose, withPose, type Posed } from '../../callout/keyframes';
import { kindOf } from '../../callout/kinds';
import { hiddenPath, movedPath, shownPath } from '../../callout/mended-path';
import { Theme } from '../../callout/theme';
import { Callout, type Project } from '../../project/model';
import { EditError } from '../error';
import { followContentOf, mendWay, restCallout } from '../followed';
import { addSpan, changeSpan } from '../spans';
import { stagger } from '../stagger';
import { changeTheme } from '../theme';
import { args, defineEdit, Ids, Instant } from './kind';
import { changeOf, nameOf } from './span-parts';

const id = Type.String();

/** A stretch of the recording that a callout goes along in. */
const STRETCH = {
  id,
  from: Type.Number({ minimum: 0, description: 'Milliseconds of the recording.' }),
  to: Type.Number({ minimum: 0, description: 'Its end, which is not part of it.' }),
};
const Pixels = Type.Number({
  ...{ minimum: -100_000, maximum: 100_000, description: 'Pixels of the recording.' },
});

function change(project: Project, id: string, to: (callout: Callout) => Posed): void {
  const callout = project.callouts.find((one) => one.id === id);
  if (!callout) throw new EditError('It is no longer there.');
  Object.assign(callout, structuredClone(to(callout)));
}

/** What points at things, says something of them, or hides them. */
export const CALLOUT_EDITS = {
  'add-callout': defineEdit({
    label: ({ callout }) => `Add ${kindOf(callout).name}`,
    args: args({ callout: Callout }),
    run: (p, { callout }) => addSpan(p, 'callouts', callout),
  }),
  'add-callouts': defineEdit({
    label: ({ callouts }) =>
      callouts.length === 1
        ? `Add ${kindOf(callouts[0]!).name}`
        : callouts.every(({ kind }) => kind === 'cover')
          ? `Add ${callouts.length} covers`
          : `Add ${callouts.length} callouts`,
    args: args({ callouts: Type.Array(Callout, { minItems: 1, maxItems: 10_000 }) }),
    run(p, { callouts }) {
      for (const callout of callouts) addSpan(p, 'callouts', callout);
    },
  }),
  'change-callout': defineEdit({
    label: ({ id }, p) => `Change ${nameOf(p, id)}`,
    args: args({ id, change: changeOf<'callouts'>() }),
    run: (p, { id, change }) => changeSpan(p, 'callouts', id, change),
  }),
  'change-callouts': defineEdit({
    label: ({ changes }) => `Change ${changes.length} callouts`,
    args: args({
      changes: Type.Array(Type.Object({ id, change: changeOf<'callouts'>() }), {
        maxItems: 100_000,
      }),
    }),
    run(p, { changes }) {
      for (const { id, change } of changes) changeSpan(p, 'callouts', id, change);
    },
  }),
  'follow-content': defineEdit({
    label: ({ id }, p) => `Follow with ${nameOf(p, id)}`,
    args: args({
      ...{ id, path: FollowPath, time: Instant },
      whole: Type.Boolean({ description: 'Lasts as long as its content is seen.' }),
    }),
    run: (p, { id, path, time, whole }, { frame }) =>
      followContentOf(p, id, path, { time, whole }, frame),
  }),
  'rest-callout': defineEdit({
    label: ({ id }, p) => `Stop following with ${nameOf(p, id)}`,
    args: args({ id, time: Instant }),
    run: (p, { id, time }) => restCallout(p, id, time),
  }),
  'move-followed': defineEdit({
    label: ({ id }, p) => `Mend the way of ${nameOf(p, id)}`,
    args: args({ ...STRETCH, dx: Pixels, dy: Pixels }),
    run: (p, { id, dx, dy, ...stretch }) =>
      mendWay(p, id, stretch, (path) => movedPath(path, stretch, { dx, dy })),
  }),
  'show-followed': defineEdit({
    label: ({ id }, p) => `In sight: ${nameOf(p, id)}`,
    args: args(STRETCH),
    run: (p, { id, ...stretch }) => mendWay(p, id, stretch, (path) => shownPath(path, stretch)),
  }),
  'hide-followed': defineEdit({
    label: ({ id }, p) => `Not in sight: ${nameOf(p, id)}`,
    args: args(STRETCH),
    run: (p, { id, ...stretch }) => mendWay(p, id, stretch, (path) => hiddenPath(path, stretch)),
  }),
  'keep-pose': defineEdit({
    label: ({ id }, p) => `Keep ${nameOf(p, id)} here`,
    args: args({ id, time: Instant }),
    run: (p, { id, time }, { frame }) =>
      change(p, id, (one) => keeping(one, time - one.start, frame / 2)),
  }),
  'change-pose': defineEdit({
    label: ({ id }, p) => `Change ${nameOf(p, id)}`,
    args: args({
      ...{ id, time: Instant },
      change: Type.Partial(Pose, {
        description: 'Of all of its time, or, where poses are kept, of the one at the instant.',
      }),
    }),
    run: (p, { id, time, change: by }, { frame }) =>
      change(p, id, (one) => withPose(one, time - one.start, by, frame / 2)),
  }),
  'drop-pose': defineEdit({
    label: ({ id }, p) => `No longer keep ${nameOf(p, id)} there`,
    args: args({ id, at: Type.Integer({ description: 'Ticks after its start.' }) }),
    run: (p, { id, at }) => change(p, id, (one) => dropping(one, at)),
  }),
  'stagger-callouts': defineEdit({
    label: 'One after the other',
    args: args({ ids: Ids, by: Type.Integer({ minimum: 1, description: 'Ticks.' }) }),
    run: (p, { ids, by }, { frame }) => stagger(p, ids, by, frame),
  }),
  'change-theme': defineEdit({
    label: 'Theme of callouts',
    args: args({ change: Type.Partial(Theme) }),
    run: (p, { change: by }, { sources }) => changeTheme(p, sources, by),
  }),
} as const;
