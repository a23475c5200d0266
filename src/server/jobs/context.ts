/** What a job gets to do its work with. */
export interface JobContext {
  readonly signal: AbortSignal;
  /** How far it is, 0 to 1, and what it is doing. */
  readonly report: (progress: number, message: string) => void;
}
