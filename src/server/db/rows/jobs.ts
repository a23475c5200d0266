import type { Job } from '../../jobs/job-queue';
import type { JobRow } from '../models';

/** A row of the queue as a job. */
export const jobOf = (row: JobRow): Job => {
  const { id, type, projectId, subject, status, progress, message, attempts } = row;
  return { id, type, projectId, subject, status, progress, message, attempts };
};
