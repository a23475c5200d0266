import type { ServerContext } from '@/server/context';
import type { Values } from './arguments';

/** A call of the command. */
export interface Call {
  readonly operands: readonly string[];
  readonly values: Values;
  /** Opens the database, for what works with it. */
  readonly open: () => Promise<ServerContext>;
  readonly signal: AbortSignal;
  readonly progress: (line: string) => void;
}

/** What a verb answers: one JSON value, and the lines a person reads instead. */
export interface Answer {
  readonly json: unknown;
  readonly text: string;
  /** The exit code, where what was found is not as it should be; 0 without. */
  readonly exit?: number;
}

/** What a word of the command does. */
export type Verb = (call: Call) => Promise<Answer>;
