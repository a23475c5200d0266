import type { ServerContext } from '../context';
import type { Outcome } from './job-queue';

/** What one attempt at a job is given. */
export interface Attempt {
  readonly signal: AbortSignal;
  /** How far it is, 0 to 1, and what it is doing. */
  readonly report: (progress: number, message: string) => void;
  /** Names this attempt among all attempts at the job, in file names. */
  readonly attempt: string;
}

/** A kind of work. */
export interface Work {
  /**
   * Does it for a subject; what it answers is done together with the job's end, if the job is still
   * its worker's then. What it throws is told to the person, unless it says that the work was
   * interrupted.
   */
  readonly run: (context: ServerContext, subject: string, attempt: Attempt) => Promise<Outcome>;
  /** What a failure changes, together with the job's end. */
  readonly failed?: (context: ServerContext, subject: string, sentence: string) => Outcome;
  /** Clears up after a job that was cancelled, or failed for good. */
  readonly clear?: (context: ServerContext, subject: string) => Promise<void>;
  /** Lets go of what was held for a job that is done now. */
  readonly done?: (context: ServerContext, subject: string) => Promise<void>;
  /** The most that one job may take, in seconds. */
  readonly seconds: () => number;
}
