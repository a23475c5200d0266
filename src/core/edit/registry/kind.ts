import { Type, type Static, type TObject } from '@sinclair/typebox';
import type { Project } from '../../project/model';
import type { Sources } from '../../project/sources';
import { nullable } from '../../schema/parts';
import type { Ticks } from '../../time/ticks';

/** What an edit may know beside its arguments. */
export interface EditContext {
  readonly sources: Sources;
  /** Length of a frame of the project, in ticks. */
  readonly frame: Ticks;
  /** Gives an id that is in use nowhere. */
  readonly newId: () => string;
}

/**
 * An edit that a person, a command or a program can do to a project: the step of the undo history,
 * the form of its arguments, and what it does. It changes a draft in place and answers what the
 * caller may want to know, such as the ids of what it made; when it can't be done it throws an
 * `EditError` with a sentence.
 */
export interface EditKind<S extends TObject, R> {
  /** What the step is called in the undo history. */
  readonly label: string | ((args: Static<S>, project: Project) => string);
  readonly args: S;
  readonly run: (draft: Project, args: Static<S>, context: EditContext) => R;
}

/** An edit, with the types of its arguments and its answer. */
export const defineEdit = <S extends TObject, R>(kind: EditKind<S, R>): EditKind<S, R> => kind;

/** Arguments, all of them needed, with what each is. */
export const args = Type.Object;

export const Ids = Type.Array(Type.String(), { maxItems: 100_000 });
/** Ids of lanes; null for all that are not locked. */
export const LaneIds = nullable(Ids, {
  description: 'Ids of lanes; null for all that are not locked.',
});
export const Instant = Type.Integer({ description: 'Timeline ticks.' });
/** A length or a way, which may go back. */
export const By = Type.Integer({ description: 'Ticks; below 0 to the left.' });
export const EndName = Type.Unsafe<'start' | 'end'>({ enum: ['start', 'end'] });
