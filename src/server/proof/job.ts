import type { ServerContext } from '../context';
import { exportOf, proofCell } from '../db/rows/exports';
import type { Work } from '../jobs/work';
import { limit } from '../limits';
import { notFound, problem } from '../problem';
import { coversOf } from './covered';
import { findingsOf } from './findings';
import { proofCovers } from './proof-covers';
import { exportOfSubject, proofSubject } from './subject';

/** Looks under the covers of an export. */
export const proofWork: Work = {
  seconds: () => limit('sightSeconds'),
  async run(context, subject, { signal, report }) {
    const id = exportOfSubject(subject);
    const row = await context.db.exports.findByPk(id);
    if (!row) throw notFound('export');
    report(0, 'Looking under the covers');
    const found = await proofCovers(context, row.projectId, id, {
      signal,
      onProgress: (share) => report(share, 'Looking under the covers'),
    });
    const findings = findingsOf(found, exportOf(row).settings.frameRate);
    const covers = coversOf(found.project).length;
    const checked = found.checked.length;
    return async (transaction) => {
      const proof = proofCell({ findings, covers, checked, fault: null });
      await context.db.exports.update({ proof }, { where: { id }, transaction });
    };
  },
  failed: (context, subject, fault) => async (transaction) => {
    const proof = proofCell({ findings: [], covers: 0, checked: 0, fault });
    await context.db.exports.update(
      { proof },
      { where: { id: exportOfSubject(subject) }, transaction },
    );
  },
};

/** Queues a look under the covers of an export that is done; one that waits or runs is enough. */
export async function requestProof(context: ServerContext, exportId: string): Promise<void> {
  const { exports, jobs } = context.db;
  const row = await exports.findByPk(exportId, { attributes: { exclude: ['document'] } });
  if (!row) throw notFound('export');
  if (!exportOf(row).result) throw problem('export-not-done');
  const subject = proofSubject(exportId);
  await context.db.transact(async (transaction) => {
    const status = ['queued', 'running'];
    if (await jobs.count({ where: { subject, status }, transaction })) return;
    await jobs.destroy({ where: { subject }, transaction });
    await exports.update({ proof: null }, { where: { id: exportId }, transaction });
    await context.queue.enqueue('proof', row.projectId, subject, transaction);
  });
}

/** Stops a look under the covers of an export. */
export async function cancelProof(context: ServerContext, exportId: string): Promise<void> {
  await context.db.transact((transaction) =>
    context.queue.cancelAll({ subject: proofSubject(exportId) }, transaction),
  );
}
