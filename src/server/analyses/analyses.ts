import { readFile } from 'node:fs/promises';
import { nanoid } from 'nanoid';
import type { Transaction } from 'sequelize';
import { ANALYSIS_NAMES, type AnalysisName, type AnalysisView } from '@/contract/analyses';
import type { ServerContext } from '../context';
import { mediaFactsOf } from '../db/rows/footage';
import type { AnalysisRow, FootageRow } from '../db/models';
import { analysisOf, summaryCell, type StoredAnalysis } from '../db/rows/analyses';
import { footageFile, trackFile } from '../footage/names';
import { findServedFootage } from '../footage/view';
import { notFound, problem } from '../problem';
import { analysisKind } from './index';
import type { Analysed } from './kind';

function viewOf(found: StoredAnalysis): AnalysisView {
  const { projectId: _, version, confidence: __, parameters: ___, ...told } = found;
  return { ...told, outdated: version < analysisKind(found.kind).version };
}

/** The name of an analysis's result in the store. */
export const resultFile = ({
  id,
  footageId,
  kind,
}: Pick<AnalysisRow, 'id' | 'footageId' | 'kind'>): string =>
  kind === 'pointer'
    ? trackFile(footageId)
    : footageFile(footageId, `${kind}-${id}.${kind === 'matte' ? 'mp4' : 'json'}`);

/** An analysis as its row. */
export async function rowOf(context: ServerContext, id: string): Promise<AnalysisRow> {
  const { analyses } = context.db;
  return (await analyses.findByPk(id)) ?? Promise.reject(notFound('analysis'));
}

/** An analysis of a kind that there still is. */
export async function findAnalysis(context: ServerContext, id: string): Promise<StoredAnalysis> {
  return analysisOf(await rowOf(context, id)) ?? Promise.reject(notFound('analysis'));
}

/** The analyses of a project's footage, of each kind the newest. */
export async function listAnalyses(
  context: ServerContext,
  projectId: string,
): Promise<AnalysisView[]> {
  const { analyses } = context.db;
  const rows = await analyses.findAll({ where: { projectId }, order: [['createdAt', 'ASC']] });
  const all = rows.map(analysisOf).filter((found) => found !== null);
  const newest = new Map(
    all.map((found) => [`${found.footageId} ${found.kind} ${found.parameters}`, found]),
  );
  return [...newest.values()].map(viewOf);
}

/**
 * Asks for an analysis of a recording. One that is there, or under way, is answered; else it is
 * queued, in the place of older ones.
 *
 * @param again makes it anew in any case, as when what it reads was sent anew
 * @param parameters what is asked for, where there is more than one thing to ask
 * @throws Problem for a recording that does not have what it needs
 */
export async function requestAnalysis(
  context: ServerContext,
  footageId: string,
  kind: AnalysisName,
  { again = false, parameters = '' }: { again?: boolean; parameters?: string } = {},
): Promise<AnalysisView & { readonly jobId: string | null }> {
  const footage = await findServedFootage(context, footageId);
  const { version, needs } = analysisKind(kind);
  const facts = mediaFactsOf(footage);
  if (!facts || !(needs === 'picture' ? facts.hasVideo : facts.hasAudio))
    throw problem('footage-not-ready');
  const { analyses, jobs } = context.db;
  return context.db.transact(async (transaction) => {
    const where = { footageId, kind, parameters };
    const [newest] = await analyses.findAll({
      where,
      order: [['createdAt', 'DESC']],
      limit: 1,
      transaction,
    });
    const there = newest && analysisOf(newest);
    const isWhole = there?.status !== 'ready' || (await hasResult(context, there));
    const usable = there && there.version === version && there.status !== 'failed' && isWhole;
    if (usable && !again) {
      const open = { subject: there.id, status: ['queued', 'running'] };
      const job = await jobs.findOne({ where: open, attributes: ['id'], transaction });
      return { ...viewOf(there), jobId: job?.id ?? null };
    }
    const { row, jobId } = await queueAnalysis(context, footage, kind, transaction, parameters);
    return { ...viewOf(analysisOf(row)!), jobId };
  });
}

/** Takes analyses of a recording away, and stops what is at them. */
async function clearAnalyses(
  { db: { analyses }, queue }: ServerContext,
  where: Partial<Pick<AnalysisRow, 'id' | 'footageId' | 'kind' | 'parameters'>>,
  transaction: Transaction,
): Promise<void> {
  for (const { id } of await analyses.findAll({ where, attributes: ['id'], transaction }))
    await queue.cancelAll({ subject: id }, transaction);
  await analyses.destroy({ where, transaction });
}

/** What was found out about a file that another one takes the place of; its pointer track stays. */
export async function forgetAnalyses(
  context: ServerContext,
  footageId: string,
  transaction: Transaction,
): Promise<void> {
  for (const kind of ANALYSIS_NAMES)
    if (kind !== 'pointer') await clearAnalyses(context, { footageId, kind }, transaction);
}

/** So many results are kept of a kind that can be asked for many things. */
const KEPT = 200;

/** Queues an analysis of a recording, in the place of older ones. */
export async function queueAnalysis(
  context: ServerContext,
  { id: footageId, projectId }: Pick<FootageRow, 'id' | 'projectId'>,
  kind: AnalysisName,
  transaction: Transaction,
  parameters = '',
): Promise<{ readonly row: AnalysisRow; readonly jobId: string }> {
  const { version, job = 'analysis' } = analysisKind(kind);
  await clearAnalyses(context, { footageId, kind, parameters }, transaction);
  if (parameters) await clearOldest(context, { footageId, kind }, transaction);
  const row = await context.db.analyses.create(
    {
      ...{ id: nanoid(), footageId, projectId, kind, parameters, version },
      status: 'waiting' as const,
      ...{ fingerprint: null, error: null, summary: summaryCell({}) },
      ...{ provenance: null, confidence: null },
    },
    { transaction },
  );
  const jobId = await context.queue.enqueue(job, projectId, row.id, transaction);
  return { row, jobId };
}

/** Takes away what was asked for longest ago and is done, but for the newest few. */
async function clearOldest(
  context: ServerContext,
  where: Pick<AnalysisRow, 'footageId' | 'kind'>,
  transaction: Transaction,
): Promise<void> {
  const { analyses } = context.db;
  const order: [string, string][] = [['createdAt', 'DESC']];
  const attributes = ['id', 'status'];
  const rows = await analyses.findAll({ where, order, attributes, transaction });
  const done = rows.slice(KEPT - 1).filter(({ status }) => status !== 'waiting');
  for (const { id } of done) await clearAnalyses(context, { id }, transaction);
}

/** Whether a result is still there: somebody may have tidied up the data folder. */
const hasResult = async (
  { stores }: ServerContext,
  row: Parameters<typeof resultFile>[0],
): Promise<boolean> => !!(await stores.files.find(resultFile(row)));

/** Where the result of a recording's analysis lies; null while there is none. */
export async function resultOf(
  context: ServerContext,
  footageId: string,
  kind: AnalysisName,
): Promise<string | null> {
  const { analyses } = context.db;
  const where = { footageId, kind, status: 'ready' };
  const row = await analyses.findOne({ where, order: [['createdAt', 'DESC']] });
  return row && (await hasResult(context, row)) ? context.stores.files.path(resultFile(row)) : null;
}

/**
 * The result of an analysis as its file has it.
 *
 * @throws Problem while it is not there
 */
export async function readResult(context: ServerContext, id: string): Promise<Buffer> {
  const row = await findAnalysis(context, id);
  if (row.status !== 'ready') throw problem('analysis-not-ready');
  if (row.kind === 'matte' || !(await hasResult(context, row))) throw notFound('file');
  return readFile(await context.stores.files.path(resultFile(row)));
}

/**
 * Gives a copy of a recording what was found out about the first; its results get a second name.
 *
 * @param to the copy, which is there already, with the project that it belongs to
 */
export async function shareAnalyses(
  context: ServerContext,
  from: string,
  to: Pick<FootageRow, 'id' | 'projectId'>,
  transaction?: Transaction,
): Promise<void> {
  const { analyses } = context.db;
  const rows = await analyses.findAll({
    where: { footageId: from, status: 'ready' },
    ...(transaction && { transaction }),
  });
  for (const row of rows) {
    const { createdAt: _, updatedAt: __, ...rest } = row.get({ plain: true });
    const copy = { ...rest, id: nanoid(), footageId: to.id, projectId: to.projectId };
    // A pointer track lies where it is looked for in every recording, and was shared with it.
    if (row.kind !== 'pointer') await context.stores.files.share(resultFile(row), resultFile(copy));
    await analyses.create(copy, transaction ? { transaction } : {});
  }
}

/** Stops an analysis that waits or runs. */
export async function cancelAnalysis(context: ServerContext, id: string): Promise<void> {
  const row = await rowOf(context, id);
  await context.db.transact(async (transaction) => {
    await context.queue.cancelAll({ subject: id }, transaction);
    if (row.status === 'waiting')
      await row.update({ status: 'failed', error: 'Cancelled' }, { transaction });
  });
}

/**
 * Notes an analysis whose result is there already, in the place of older ones.
 *
 * @param part a file with the result, which becomes its own; not given where it was put there
 * @param parameters what was asked for, where there is more than one thing to ask
 */
export async function noteAnalysis(
  context: ServerContext,
  footageId: string,
  kind: AnalysisName,
  { summary, provenance, confidence }: Analysed,
  part?: string,
  parameters = '',
): Promise<void> {
  const { analyses, footage } = context.db;
  const row = await footage.findByPk(footageId, { attributes: ['projectId'] });
  if (!row) throw notFound('footage');
  const id = nanoid();
  if (part) await context.stores.files.put(resultFile({ id, footageId, kind }), part);
  await context.db.transact(async (transaction) => {
    await clearAnalyses(context, { footageId, kind }, transaction);
    await analyses.create(
      {
        ...{ id, footageId, projectId: row.projectId, kind, provenance, confidence },
        parameters,
        ...{ version: analysisKind(kind).version, status: 'ready' as const, error: null },
        ...{ fingerprint: null, summary: summaryCell(summary) },
      },
      { transaction },
    );
  });
}
