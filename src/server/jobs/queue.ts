import { nanoid } from 'nanoid';
import { QueryTypes } from 'sequelize';
import { database } from '../db/connection';
import type { JobRow, JobType } from '../db/models';

/** A lease is lost this long after its last heartbeat; another worker may then take the job over. */
const LEASE_MS = 15_000;
const MAX_ATTEMPTS = 3;

/** Puts a job in the queue. */
export async function enqueue(type: JobType, projectId: string, subject: string): Promise<string> {
  const { jobs } = await database();
  const id = nanoid();
  await jobs.create({
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
  });
  return id;
}

/**
 * Takes the oldest job that waits or whose worker has fallen silent; null when
 * there is none. One statement, so that no two workers get the same.
 */
export async function claim(
  owner: string,
  { type, id }: { type?: JobType; id?: string } = {},
): Promise<JobRow | null> {
  const { jobs, sequelize } = await database();
  const now = Date.now();
  const rows = await sequelize.query<{ id: string }>(
    `UPDATE jobs SET status = 'running', owner = :owner, leaseUntil = :until, attempts = attempts + 1, updatedAt = :stamp
     WHERE id = (SELECT id FROM jobs WHERE (status = 'queued' OR (status = 'running' AND leaseUntil < :now))
       AND (:type IS NULL OR type = :type) AND (:id IS NULL OR id = :id) ORDER BY createdAt LIMIT 1)
     RETURNING id`,
    {
      replacements: {
        owner,
        until: now + LEASE_MS,
        now,
        stamp: new Date().toISOString(),
        type: type ?? null,
        id: id ?? null,
      },
      type: QueryTypes.SELECT,
    },
  );
  if (!rows[0]) return null;
  const job = await jobs.findByPk(rows[0].id);
  if (job && job.attempts > MAX_ATTEMPTS) {
    await finish(
      job.id,
      'failed',
      'It was interrupted three times and is not tried again by itself. Start it again when the machine has room.',
    );
    return claim(owner, { type, id });
  }
  return job;
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

/** Ends a job. A cancelled one stays cancelled. */
export async function finish(
  id: string,
  status: 'done' | 'failed',
  message: string,
): Promise<void> {
  const { jobs } = await database();
  await jobs.update(
    { status, message, ...(status === 'done' ? { progress: 1 } : {}), owner: null },
    { where: { id, status: 'running' } },
  );
}

/** Asks for a job to end; a running one notices at its next heartbeat. */
export async function cancelJob(id: string): Promise<void> {
  const { jobs } = await database();
  await jobs.update(
    { status: 'cancelled', message: 'Cancelled', owner: null },
    { where: { id, status: ['queued', 'running'] } },
  );
}

/** Gives a job back unharmed, as a worker that is asked to stop does. */
export async function putBack(id: string, owner: string): Promise<void> {
  const { jobs } = await database();
  await jobs.update(
    { status: 'queued', owner: null, attempts: 0 },
    { where: { id, owner, status: 'running' } },
  );
}

/** Jobs of a project that wait or run, for progress in the interface. */
export async function activeJobs(
  projectId: string,
): Promise<{ subject: string; progress: number; message: string }[]> {
  const { jobs } = await database();
  const rows = await jobs.findAll({ where: { projectId, status: ['queued', 'running'] } });
  return rows.map(({ subject, progress, message }) => ({ subject, progress, message }));
}
