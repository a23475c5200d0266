import { copyFile, link, readdir, readFile, rename, rm } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { nanoid } from 'nanoid';
import type { Transaction } from 'sequelize';
import type { AnalysisName, AnalysisView } from '@/contract/analyses';
import { footageCells, footageOf, mediaFactsOf } from '../db/rows/footage';
import { database, inTransaction } from '../db/connection';
import type { AnalysisRow, FootageRow } from '../db/models';
import { analysisOf, summaryCell, type StoredAnalysis } from '../db/rows/analyses';
import { footageFolder, originalPath, trackPath } from '../footage/paths';
import { findServedFootage } from '../footage/view';
import type { Work } from '../jobs/context';
import { cancelJobsOf, enqueue } from '../jobs/queue';
import { partOfFile } from '../media/whole-file';
import { notFound, problem } from '../problem';
import { analysisKind } from './index';
import { fingerprint } from './fingerprint';
import type { Analysed, AnalysisKind } from './kind';

function viewOf(found: StoredAnalysis): AnalysisView {
  const { projectId: _, version, provenance: __, confidence: ___, ...told } = found;
  return { ...told, outdated: version < analysisKind(found.kind).version };
}

/** Where the result of an analysis lies. */
const resultPath = ({ id, footageId, kind }: Pick<AnalysisRow, 'id' | 'footageId' | 'kind'>) =>
  kind === 'pointer' ? trackPath(footageId) : join(footageFolder(footageId), `${kind}-${id}.json`);

async function rowOf(id: string): Promise<AnalysisRow> {
  const { analyses } = await database();
  return (await analyses.findByPk(id)) ?? Promise.reject(notFound('analysis'));
}

async function findAnalysis(id: string): Promise<StoredAnalysis> {
  return analysisOf(await rowOf(id)) ?? Promise.reject(notFound('analysis'));
}

/** The analyses of a project's footage, of each kind the newest. */
export async function listAnalyses(projectId: string): Promise<AnalysisView[]> {
  const { analyses } = await database();
  const rows = await analyses.findAll({ where: { projectId }, order: [['createdAt', 'ASC']] });
  const all = rows.map(analysisOf).filter((found) => found !== null);
  const newest = new Map(all.map((found) => [`${found.footageId} ${found.kind}`, found]));
  return [...newest.values()].map(viewOf);
}

/**
 * Asks for an analysis of a recording. One that is there, or under way, is answered; else it is
 * queued, in the place of older ones.
 *
 * @param again makes it anew in any case, as when what it reads was sent anew
 * @throws Problem for a recording that does not have what it needs
 */
export async function requestAnalysis(
  footageId: string,
  kind: AnalysisName,
  { again = false }: { again?: boolean } = {},
): Promise<AnalysisView & { readonly jobId: string | null }> {
  const footage = await findServedFootage(footageId);
  const { version, needs } = analysisKind(kind);
  const facts = mediaFactsOf(footage);
  if (!facts || !(needs === 'picture' ? facts.hasVideo : facts.hasAudio))
    throw problem('footage-not-ready');
  const { analyses, jobs } = await database();
  return inTransaction(async (transaction) => {
    const where = { footageId, kind };
    const [newest] = await analyses.findAll({
      where,
      order: [['createdAt', 'DESC']],
      limit: 1,
      transaction,
    });
    const there = newest && analysisOf(newest);
    const usable = there && there.version === version && there.status !== 'failed';
    if (usable && !again) {
      const open = { subject: there.id, status: ['queued', 'running'] };
      const job = await jobs.findOne({ where: open, attributes: ['id'], transaction });
      return { ...viewOf(there), jobId: job?.id ?? null };
    }
    if (there) await cancelJobsOf({ subject: there.id }, transaction);
    await analyses.destroy({ where, transaction });
    const { projectId } = footage;
    const row = await analyses.create(
      {
        ...{ id: nanoid(), footageId, projectId, kind, version, status: 'waiting' as const },
        ...{
          fingerprint: null,
          error: null,
          summary: summaryCell({}),
          provenance: null,
          confidence: null,
        },
      },
      { transaction },
    );
    const jobId = await enqueue('analysis', projectId, row.id, transaction);
    return { ...viewOf(analysisOf(row)!), jobId };
  });
}

/**
 * The result of an analysis as its file has it.
 *
 * @throws Problem while it is not there
 */
export async function readResult(id: string): Promise<Buffer> {
  const row = await findAnalysis(id);
  if (row.status !== 'ready') throw problem('analysis-not-ready');
  return readFile(resultPath(row));
}

/** Stops an analysis that waits or runs. */
export async function cancelAnalysis(id: string): Promise<void> {
  const row = await rowOf(id);
  await inTransaction(async (transaction) => {
    await cancelJobsOf({ subject: id }, transaction);
    if (row.status === 'waiting')
      await row.update({ status: 'failed', error: 'Cancelled' }, { transaction });
  });
}

/** Notes an analysis whose result was written by who had it already, in the place of older ones. */
export async function noteAnalysis(
  footageId: string,
  kind: AnalysisName,
  { summary, provenance, confidence }: Analysed,
): Promise<void> {
  const { analyses, footage } = await database();
  const row = await footage.findByPk(footageId, { attributes: ['projectId'] });
  if (!row) throw notFound('footage');
  await inTransaction(async (transaction) => {
    await analyses.destroy({ where: { footageId, kind }, transaction });
    await analyses.create(
      {
        ...{ id: nanoid(), footageId, projectId: row.projectId, kind, provenance, confidence },
        ...{ version: analysisKind(kind).version, status: 'ready' as const, error: null },
        ...{ fingerprint: null, summary: summaryCell(summary) },
      },
      { transaction },
    );
  });
}

/** A result for the same content, made by the same version, under a name of this recording's own. */
async function fromCache(row: AnalysisRow, mark: string, target: string): Promise<Analysed | null> {
  const { analyses } = await database();
  const { kind, version } = row;
  const others = await analyses.findAll({
    where: { kind, version, fingerprint: mark, status: 'ready' },
    limit: 4,
  });
  for (const other of others) {
    const path = resultPath(other);
    const linked = await link(path, target)
      .catch(() => copyFile(path, target))
      .then(
        () => true,
        () => false,
      );
    if (!linked) continue;
    const { summary = {}, provenance, confidence } = analysisOf(other) ?? {};
    return { summary, provenance: provenance ?? 'found', confidence: confidence ?? 1, notes: [] };
  }
  return null;
}

/**
 * Sentences on a pointer track begin with this, so that those on the one before can be told and
 * taken away.
 */
const ABOUT_TRACK = 'Pointer track: ';

/** What a pointer track changes of its footage. */
async function noteTrack(
  footageId: string,
  fresh: readonly string[],
  attached: boolean,
  transaction: Transaction,
): Promise<void> {
  const { footage } = await database();
  const row = await footage.findByPk(footageId, { transaction });
  if (!row) return;
  const others = footageOf(row).notes.filter((note) => !note.startsWith(ABOUT_TRACK));
  const notes = [...others, ...fresh.map((note) => ABOUT_TRACK + note)];
  const cells = { ...footageCells({ notes }), ...(attached ? { hasPointer: true } : {}) };
  await row.update(cells, { transaction });
}

async function footageFor(row: AnalysisRow): Promise<FootageRow> {
  const { footage } = await database();
  return (await footage.findByPk(row.footageId)) ?? Promise.reject(notFound('footage'));
}

async function analyse(
  row: AnalysisRow,
  kind: AnalysisKind,
  target: string,
  context: Parameters<Work['run']>[1],
): Promise<{ readonly found: Analysed; readonly mark: string | null }> {
  const footage = await footageFor(row);
  const facts = mediaFactsOf(footage);
  if (!facts) throw problem('footage-not-ready');
  const path = originalPath(footage);
  const mark = kind.repeatable ? await fingerprint(path) : null;
  const cached = mark === null ? null : await fromCache(row, mark, target);
  const found = cached ?? (await kind.run({ footage, facts, path, target }, context));
  return { found, mark };
}

/** Removes what attempts that were not brought to their end began to write. */
async function removeParts(target: string): Promise<void> {
  const names = await readdir(dirname(target)).catch(() => []);
  for (const name of names)
    if (name.startsWith(`${basename(target)}.`) && name.endsWith('.part'))
      await rm(join(dirname(target), name), { force: true });
}

/** Does an analysis that was asked for. */
export const analysisWork: Work = {
  // Each kind has limits of its own for what it starts.
  seconds: () => 3600,
  async run(id, context) {
    const row = await rowOf(id);
    const { kind: name } = await findAnalysis(id);
    const kind = analysisKind(name);
    const late = AbortSignal.timeout(kind.seconds() * 1000);
    const signal = AbortSignal.any([context.signal, late]);
    const part = partOfFile(resultPath(row));
    try {
      const { found, mark } = await analyse(row, kind, part, { ...context, signal });
      return async (transaction) => {
        const still = await row.reload({ transaction }).catch(() => null);
        if (!still) return rm(part, { force: true });
        await rename(part, resultPath(row));
        await kind.clear?.(row.footageId);
        const { summary, provenance, confidence, notes } = found;
        await row.update(
          {
            ...{ status: 'ready', error: null, fingerprint: mark, provenance, confidence },
            summary: summaryCell(summary),
          },
          { transaction },
        );
        if (row.kind === 'pointer') await noteTrack(row.footageId, notes, true, transaction);
      };
    } catch (error) {
      await rm(part, { force: true });
      throw error;
    }
  },
  failed: (id, sentence) => async (transaction) => {
    const { analyses } = await database();
    const row = await analyses.findByPk(id, { transaction });
    await row?.update({ status: 'failed', error: sentence }, { transaction });
    const note = [`it was not attached. ${sentence}`];
    if (row?.kind === 'pointer') await noteTrack(row.footageId, note, false, transaction);
  },
  async clear(id) {
    const { analyses } = await database();
    const row = await analyses.findByPk(id);
    const found = row && analysisOf(row);
    if (!found) return;
    await analysisKind(found.kind).clear?.(found.footageId);
    await removeParts(resultPath(found));
  },
};
