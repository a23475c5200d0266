/**
 * `take` finishes the tracks of a take that has ended; `probe` finds out what a file is, `ingest`
 * makes what the preview needs of it; `sight` are analyses that look through a whole recording:
 * nobody else waits behind them; `proof` looks through an export.
 */
export type JobType = 'take' | 'probe' | 'ingest' | 'export' | 'analysis' | 'sight' | 'proof';
export type JobStatus = 'queued' | 'running' | 'done' | 'failed' | 'cancelled';

/** A job that waits or runs, for progress in the interface. */
export interface ActiveJob {
  readonly type: JobType;
  readonly subject: string;
  readonly progress: number;
  readonly message: string;
}
