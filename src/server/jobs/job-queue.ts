import type { Transaction } from 'sequelize';
import type { ActiveJob, JobStatus, JobType } from '@/contract/jobs';

/** A piece of work in the queue, as it was when it was asked for. */
export interface Job {
  readonly id: string;
  readonly type: JobType;
  readonly projectId: string;
  /** Id of the footage, export or analysis it works on. */
  readonly subject: string;
  readonly status: JobStatus;
  /** 0 to 1. */
  readonly progress: number;
  readonly message: string;
  /** How often it was begun, this time counted. */
  readonly attempts: number;
}

/** A job that was claimed, by whoever has it. */
export interface Claimed extends Job {
  readonly owner: string;
}

/** Which jobs are asked for; of any type when none is named. */
export interface Claimable {
  readonly type?: JobType;
  readonly id?: string;
  /** A project that has so many running already is passed over. */
  readonly mostOfOneProject?: number;
}

/** What an end of a job changes besides. */
export type Outcome = (transaction: Transaction) => Promise<void>;

/** The jobs of a project, or those that work on one thing of it. */
export type JobsOf = { readonly projectId: string } | { readonly subject: string };

/**
 * Work that is done outside of requests. A job has one owner at a time, by a lease that its beats
 * keep; only the owner ends it, and only while it has it.
 */
export interface JobQueue {
  /**
   * Puts a job in.
   *
   * @param transaction the job is there when, and only if, what else it does is
   * @returns the job's id
   */
  enqueue(
    type: JobType,
    projectId: string,
    subject: string,
    transaction?: Transaction,
  ): Promise<string>;

  /**
   * Takes a job that waits or whose worker has fallen silent; null when there is none. No two
   * owners get the same. Of the projects that have the fewest running, the oldest job, so that no
   * project waits for all of another's.
   */
  claim(owner: string, wanted?: Claimable): Promise<Claimed | null>;

  /** Keeps the lease, and says how far the job is; false when it was taken away or cancelled. */
  beat(job: Claimed, progress: number, message: string): Promise<boolean>;

  /**
   * Ends a job together with what came of it: both count, or neither. One that was cancelled, or
   * that another has by now, stays as it is, and nothing comes of it.
   *
   * @returns whether the job was ended
   */
  complete(job: Claimed, outcome?: Outcome): Promise<boolean>;

  /** Ends a job that can't be done, with a sentence that says why; else as `complete`. */
  fail(job: Claimed, sentence: string, outcome?: Outcome): Promise<boolean>;

  /**
   * Gives a job back unharmed, as a worker does that is asked to stop: the attempt does not count.
   */
  putBack(job: Claimed): Promise<void>;

  /**
   * Gives a job back that was interrupted through no fault of its file: it is tried again after a
   * pause.
   */
  tryAgain(job: Claimed, message: string): Promise<void>;

  /** Asks for a job to end; a running one notices at its next beat. */
  cancel(id: string): Promise<void>;

  /** Cancels several jobs. */
  cancelAll(of: JobsOf, transaction: Transaction): Promise<void>;

  /** Removes all trace of several jobs. */
  forget(of: JobsOf, transaction: Transaction): Promise<void>;

  /** A job by its id; null when there is none. */
  find(id: string): Promise<Job | null>;

  /** All jobs that work, or worked, on any of these, oldest first. */
  about(subjects: readonly string[], transaction?: Transaction): Promise<Job[]>;

  /** Jobs of a project that wait or run. */
  active(projectId: string): Promise<ActiveJob[]>;
}
