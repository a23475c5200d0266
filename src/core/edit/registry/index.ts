import type { Static, TObject } from '@sinclair/typebox';
import type { Project } from '../../project/model';
import type { Sources } from '../../project/sources';
import { frameDuration } from '../../time/ticks';
import type { Edit } from '../apply';
import { CALLOUT_EDITS } from './callouts';
import { CLIP_EDITS } from './clips';
import type { EditKind } from './kind';
import { LANE_EDITS } from './lanes';
import { OUTLINE_EDITS } from './outline';
import { PLACING_EDITS } from './placing';
import { RIPPLE_EDITS } from './ripple';
import { SETTING_EDITS } from './settings';
import { SEVERAL_EDITS } from './several';
import { SOUND_EDITS } from './sound';
import { SPAN_EDITS } from './spans';

/** Every edit there is, by its id: for the interface, the command line, and the laws they keep. */
export const EDITS = {
  ...CLIP_EDITS,
  ...RIPPLE_EDITS,
  ...SOUND_EDITS,
  ...LANE_EDITS,
  ...SPAN_EDITS,
  ...CALLOUT_EDITS,
  ...SEVERAL_EDITS,
  ...OUTLINE_EDITS,
  ...SETTING_EDITS,
  ...PLACING_EDITS,
} as const;

export type EditId = keyof typeof EDITS;
export type EditArgs<I extends EditId> = Static<(typeof EDITS)[I]['args']>;
/** An edit with its arguments. */
export type EditCall = { [I in EditId]: readonly [id: I, args: EditArgs<I>] }[EditId];
export type EditResult<I extends EditId> = ReturnType<(typeof EDITS)[I]['run']>;

/** An edit by its id, for who treats all alike. */
export const editKind = (id: EditId): EditKind<TObject, unknown> =>
  // Each is only ever given its own arguments.
  EDITS[id] as unknown as EditKind<TObject, unknown>;

/**
 * An edit with its arguments, ready to be done to a draft; its step's name in the undo history, and
 * what it answered once it was done.
 *
 * @param newId gives ids that are in use nowhere
 */
export function prepareEdit<I extends EditId>(
  id: I,
  args: EditArgs<I>,
  project: Project,
  sources: Sources,
  newId: () => string,
): { readonly label: string; readonly edit: Edit; readonly result: () => EditResult<I> } {
  const { label, run } = editKind(id);
  let result: unknown;
  return {
    label: typeof label === 'string' ? label : label(args, project),
    edit(draft) {
      const frame = frameDuration(draft.canvas.frameRate);
      result = run(draft, args, { sources, frame, newId });
    },
    result: () => result as EditResult<I>,
  };
}
