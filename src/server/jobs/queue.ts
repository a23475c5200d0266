import { nanoid } from 'nanoid';
import { Op, QueryTypes, type Transaction } from 'sequelize';
import type { ActiveJob, JobType } from '@/contract/jobs';
import { database, inTransaction } from '../db/connection';
import type { JobRow } from '../db/models';

/**
 * A lease is lost this long after its last heartbeat, in milliseconds; another worker may then take
 * the job over.
 */
export const LEASE_MS = 15_000;
/** A job that was interrupted is tried so often in all. */
export const MAX_ATTEMPTS = 3;
/** A job that was interrupted waits so long for each attempt it had, in milliseconds. */
const PAUSE_MS = 2000;

/** Puts a job in the queue. */
export async function enqueue(
  type: JobType,
  projectId: string,
  subject: string,
  transaction?: Transaction,
): Promise<string> {
  const { jobs } = await database();
  const id = nanoid();
  await jobs.create(
    {
      id,
      type,
      projectId,
      subject,
      status: 'queued',
      progress: 0,
      message: 'Waiting',
      attempts: 0,
      owner: null,
      leaseUntil: 0,
    },
    { transaction },
  );
  return id;
}

export interface Claimable {
  readonly type?: JobType;
  readonly id?: string;
  /** A project that has so many running already is passed over. */
  readonly mostOfOneProject?: number;
}

/**
 * Takes a job that waits or whose worker has fallen silent; null when there is none. Of the
 * projects that have the fewest running, the oldest job, so that no project waits for all of
 * another's. One statement, so that no two workers get the same.
 */
export async function claim(
  owner: string,
  { type, id, mostOfOneProject = Number.MAX_SAFE_INTEGER }: Claimable = {},
): Promise<JobRow | null> {
  const { jobs, sequelize } = await database();
  const now = Date.now();
  const rows = await sequelize.query<{ id: string }>(
    `WITH busy AS (
       SELECT projectId, COUNT(*) AS many FROM jobs
       WHERE status = 'running' AND leaseUntil >= :now AND (:type IS NULL OR type = :type)
       GROUP BY projectId)
     UPDATE jobs SET status = 'running', owner = :owner, leaseUntil = :until,
       attempts = attempts + 1, updatedAt = :stamp
     WHERE id = (
       SELECT j.id FROM jobs j LEFT JOIN busy ON busy.projectId = j.projectId
       WHERE j.status IN ('queued', 'running') AND j.leaseUntil < :now
         AND (:type IS NULL OR j.type = :type) AND (:id IS NULL OR j.id = :id)
         AND COALESCE(busy.many, 0) < :most
       ORDER BY COALESCE(busy.many, 0), j.createdAt LIMIT 1)
     RETURNING id`,
    {
      replacements: {
        owner,
        until: now + LEASE_MS,
        now,
        stamp: new Date().toISOString(),
        type: type ?? null,
        id: id ?? null,
        most: mostOfOneProject,
      },
      type: QueryTypes.SELECT,
    },
  );
  if (!rows[0]) return null;
  return jobs.findByPk(rows[0].id);
}

/** Keeps the lease, and says how far the job is; false when the job was taken away or cancelled. */
export async function heartbeat(
  id: string,
  owner: string,
  progress: number,
  message: string,
): Promise<boolean> {
  const { jobs } = await database();
  const [count] = await jobs.update(
    { progress, message, leaseUntil: Date.now() + LEASE_MS },
    { where: { id, owner, status: 'running' } },
  );
  return count > 0;
}

/** What an end of a job changes besides. */
export type Outcome = (transaction: Transaction) => Promise<void>;

/**
 * Ends a job that `owner` has, together with what came of it: both count, or neither. One that was
 * cancelled, or that another has by now, stays as it is, and nothing comes of it.
 *
 * @returns whether the job was ended
 */
export async function finish(
  id: string,
  owner: string,
  status: 'done' | 'failed',
  message: string,
  outcome?: Outcome,
): Promise<boolean> {
  const { jobs } = await database();
  return inTransaction(async (transaction) => {
    const [count] = await jobs.update(
      { status, message, ...(status === 'done' ? { progress: 1 } : {}), owner: null },
      { where: { id, owner, status: 'running' }, transaction },
    );
    if (count) await outcome?.(transaction);
    return count > 0;
  });
}

/** Asks for a job to end; a running one notices at its next heartbeat. */
export async function cancelJob(id: string): Promise<void> {
  const { jobs } = await database();
  await jobs.update(
    { status: 'cancelled', message: 'Cancelled', owner: null },
    { where: { id, status: ['queued', 'running'] } },
  );
}

/** Cancels all jobs of a project, or all that work on one thing of it. */
export async function cancelJobsOf(
  of: { readonly projectId: string } | { readonly subject: string },
  transaction: Transaction,
): Promise<void> {
  const { jobs } = await database();
  await jobs.update(
    { status: 'cancelled', message: 'Cancelled', owner: null },
    { where: { ...of, status: { [Op.in]: ['queued', 'running'] } }, transaction },
  );
}

/**
 * Gives a job back unharmed, as a worker that is asked to stop does: the attempt does not count.
 */
export async function putBack(id: string, owner: string): Promise<void> {
  const { jobs } = await database();
  await jobs.update(
    { status: 'queued', owner: null, attempts: 0, leaseUntil: 0 },
    { where: { id, owner, status: 'running' } },
  );
}

/**
 * Gives a job back that was interrupted through no fault of its file: it is tried again after a
 * pause.
 */
export async function tryAgain(id: string, owner: string, attempts: number, message: string) {
  const { jobs } = await database();
  await jobs.update(
    { status: 'queued', owner: null, message, leaseUntil: Date.now() + PAUSE_MS * attempts },
    { where: { id, owner, status: 'running' } },
  );
}

/** Jobs of a project that wait or run. */
export async function activeJobs(projectId: string): Promise<ActiveJob[]> {
  const { jobs } = await database();
  const rows = await jobs.findAll({ where: { projectId, status: ['queued', 'running'] } });
  return rows.map(({ type, subject, progress, message }) => ({ type, subject, progress, message }));
}
