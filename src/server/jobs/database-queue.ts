import { nanoid } from 'nanoid';
import { QueryTypes, type Transaction } from 'sequelize';
import type { ActiveJob, JobStatus, JobType } from '@/contract/jobs';
import type { Database } from '../db/connection';
import { jobOf } from '../db/rows/jobs';
import type { Claimable, Claimed, Job, JobQueue, JobsOf, Outcome } from './job-queue';

/**
 * A lease is lost this long after its last beat, in milliseconds; another worker may then take the
 * job over.
 */
export const LEASE_MS = 15_000;
/** A job that was interrupted waits so long for each attempt it had, in milliseconds. */
const PAUSE_MS = 2000;

const OPEN: JobStatus[] = ['queued', 'running'];
const CANCELLED = { status: 'cancelled', message: 'Cancelled', owner: null } as const;

/** The queue as a table of the database, which web server, workers and command share. */
export class DatabaseQueue implements JobQueue {
  constructor(private readonly db: Database) {}

  async enqueue(
    type: JobType,
    projectId: string,
    subject: string,
    transaction?: Transaction,
  ): Promise<string> {
    const id = nanoid();
    await this.db.jobs.create(
      {
        ...{ id, type, projectId, subject, status: 'queued', progress: 0, message: 'Waiting' },
        ...{ attempts: 0, owner: null, leaseUntil: 0 },
      },
      { transaction },
    );
    return id;
  }

  async claim(
    owner: string,
    { type, id, mostOfOneProject = Number.MAX_SAFE_INTEGER }: Claimable = {},
  ): Promise<Claimed | null> {
    const now = Date.now();
    const rows = await this.db.sequelize.query<{ id: string }>(
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
    const job = rows[0] && (await this.find(rows[0].id));
    return job ? { ...job, owner } : null;
  }

  beat(job: Claimed, progress: number, message: string): Promise<boolean> {
    return this.change(job, { progress, message, leaseUntil: Date.now() + LEASE_MS });
  }

  complete(job: Claimed, outcome?: Outcome): Promise<boolean> {
    const done = { status: 'done', message: 'Done', progress: 1, owner: null } as const;
    return this.end(job, done, outcome);
  }

  fail(job: Claimed, sentence: string, outcome?: Outcome): Promise<boolean> {
    return this.end(job, { status: 'failed', message: sentence, owner: null }, outcome);
  }

  async putBack(job: Claimed): Promise<void> {
    await this.change(job, { status: 'queued', owner: null, attempts: 0, leaseUntil: 0 });
  }

  async tryAgain(job: Claimed, message: string): Promise<void> {
    const leaseUntil = Date.now() + PAUSE_MS * job.attempts;
    await this.change(job, { status: 'queued', owner: null, message, leaseUntil });
  }

  async cancel(id: string): Promise<void> {
    await this.db.jobs.update(CANCELLED, { where: { id, status: OPEN } });
  }

  async cancelAll(of: JobsOf, transaction: Transaction): Promise<void> {
    await this.db.jobs.update(CANCELLED, { where: { ...of, status: OPEN }, transaction });
  }

  async forget(of: JobsOf, transaction: Transaction): Promise<void> {
    await this.db.jobs.destroy({ where: { ...of }, transaction });
  }

  async find(id: string): Promise<Job | null> {
    const row = await this.db.jobs.findByPk(id);
    return row && jobOf(row);
  }

  async about(subjects: readonly string[], transaction?: Transaction): Promise<Job[]> {
    const rows = await this.db.jobs.findAll({
      where: { subject: [...subjects] },
      order: [['createdAt', 'ASC']],
      transaction,
    });
    return rows.map(jobOf);
  }

  async active(projectId: string): Promise<ActiveJob[]> {
    const rows = await this.db.jobs.findAll({ where: { projectId, status: OPEN } });
    return rows
      .map(jobOf)
      .map(({ type, subject, progress, message }) => ({ type, subject, progress, message }));
  }

  /** Changes a job while its owner has it; false when that is over. */
  private async change(
    { id, owner }: Claimed,
    cells: Parameters<Database['jobs']['update']>[0],
    transaction?: Transaction,
  ): Promise<boolean> {
    const where = { id, owner, status: 'running' };
    const [count] = await this.db.jobs.update(cells, { where, transaction });
    return count > 0;
  }

  private end(
    job: Claimed,
    cells: Parameters<Database['jobs']['update']>[0],
    outcome?: Outcome,
  ): Promise<boolean> {
    return this.db.transact(async (transaction) => {
      const mine = await this.change(job, cells, transaction);
      if (mine) await outcome?.(transaction);
      return mine;
    });
  }
}
