import { Interrupted } from './processes/interrupted';
import { Problem, systemProblem, type PlainProblem } from './problem';

/**
 * How a thread ended, also when it was told to; errors lose their class on the way between threads.
 */
export interface Outcome {
  readonly refused: PlainProblem | null;
  readonly interrupted: string | null;
}

/** All went well. */
export const DONE: Outcome = { refused: null, interrupted: null };

/**
 * The outcome of a failure that a person is told of, or that is tried again; others are thrown on.
 */
export function outcomeOf(error: unknown): Outcome {
  if (error instanceof Interrupted) return { ...DONE, interrupted: error.message };
  const found = error instanceof Problem ? error : systemProblem(error);
  if (found) return { ...DONE, refused: found.plain() };
  throw error;
}

/** Throws what an outcome stands for, unless all went well. */
export function throwFailure({ refused, interrupted }: Outcome): void {
  if (refused) throw Problem.of(refused);
  if (interrupted !== null) throw new Interrupted(interrupted);
}
