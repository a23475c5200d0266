import { Type } from '@sinclair/typebox';
import { ProjectTarget, ScriptSettings, Step } from '../../project/model';
import { nullable } from '../../schema/parts';
import { TARGET_IDS, type TargetId } from '../../project/targets';
import {
  addStep,
  changeStep,
  changeTarget,
  insertSteps,
  joinStep,
  moveStep,
  removeStep,
  setTarget,
  setWordsPerMinute,
  splitStep,
} from '../outline';
import { args, defineEdit, Instant } from './kind';

const id = Type.String();
const Words = Type.Pick(Step, ['title', 'narration', 'action', 'notes'], {
  additionalProperties: false,
});

/** The script, and where the tutorial will be shown. */
export const OUTLINE_EDITS = {
  'add-step': defineEdit({
    label: 'Add step',
    args: args({ start: Instant, words: Words }),
    run(p, { start, words }, { newId }) {
      const id = newId();
      addStep(p, { id, start, ...words });
      return id;
    },
  }),
  'insert-steps': defineEdit({
    label: ({ words }) => (words.length === 1 ? 'Add step' : 'Paste script'),
    args: args({
      at: nullable(
        Type.Integer({ minimum: 0, description: 'Index in the outline; null is its end.' }),
      ),
      words: Type.Array(Words, { maxItems: 20_000 }),
      replace: Type.Boolean({ description: 'Steps that are only planned go.' }),
    }),
    run(p, { at, words, replace }, { newId }) {
      if (replace) p.steps = p.steps.filter((s) => s.start !== null);
      const steps = words.map((w) => ({ id: newId(), start: null, ...w }));
      insertSteps(p, at, steps);
      return steps.map((s) => s.id);
    },
  }),
  'change-step': defineEdit({
    label: ({ id }, p) => `Words of step ${p.steps.findIndex((s) => s.id === id) + 1}`,
    args: args({ id, change: Type.Partial(Words) }),
    run: (p, { id, change }) => changeStep(p, id, change),
  }),
  'remove-step': defineEdit({
    label: 'Remove step',
    args: args({ id }),
    run: (p, { id }) => removeStep(p, id),
  }),
  'move-step': defineEdit({
    label: 'Move step',
    args: args({ id, to: Type.Integer({ minimum: 0 }) }),
    run: (p, { id, to }) => moveStep(p, id, to),
  }),
  'split-step': defineEdit({
    label: 'Split step',
    args: args({ id, at: Type.Integer({ minimum: 0, description: 'Character.' }) }),
    run: (p, { id, at }, { newId }) => splitStep(p, id, at, newId),
  }),
  'join-step': defineEdit({
    label: 'Join steps',
    args: args({ id }),
    run: (p, { id }) => joinStep(p, id),
  }),
  'set-target': defineEdit({
    label: 'Target',
    args: args({ id: Type.Unsafe<TargetId>({ enum: [...TARGET_IDS] }) }),
    run: (p, { id }) => setTarget(p, id),
  }),
  'change-target': defineEdit({
    label: ({ change }) => ('loudness' in change ? 'Loudness goal' : 'Captions'),
    args: args({ change: Type.Partial(Type.Pick(ProjectTarget, ['loudness', 'captions'])) }),
    run: (p, { change }) => changeTarget(p, change),
  }),
  'set-reading-speed': defineEdit({
    label: 'Reading speed',
    args: args({ wordsPerMinute: ScriptSettings.properties.wordsPerMinute }),
    run: (p, { wordsPerMinute }) => setWordsPerMinute(p, wordsPerMinute),
  }),
} as const;
