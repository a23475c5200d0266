import { copyFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Transaction } from 'sequelize';
import type { ServerContext } from '../context';
import { footageCells, footageOf, mediaFactsOf } from '../db/rows/footage';
import type { AnalysisRow, FootageRow } from '../db/models';
import { analysisOf, summaryCell } from '../db/rows/analyses';
import { originalFile } from '../footage/names';
import type { Attempt, Work } from '../jobs/work';
import { workFolder } from '../places';
import { notFound, problem } from '../problem';
import { findAnalysis, resultFile, rowOf } from './analyses';
import { analysisKind } from './index';
import { fingerprint } from './fingerprint';
import type { Analysed, AnalysisKind } from './kind';

/** A result for the same content, made by the same version. */
async function fromCache(
  context: ServerContext,
  row: AnalysisRow,
  mark: string,
  target: string,
): Promise<Analysed | null> {
  const { analyses } = context.db;
  const { kind, version, parameters } = row;
  const others = await analyses.findAll({
    where: { kind, version, parameters, fingerprint: mark, status: 'ready' },
    limit: 4,
  });
  for (const other of others) {
    const path = await context.stores.files.path(resultFile(other));
    const there = await copyFile(path, target).then(
      () => true,
      () => false,
    );
    if (!there) continue;
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
  context: ServerContext,
  footageId: string,
  fresh: readonly string[],
  attached: boolean,
  transaction: Transaction,
): Promise<void> {
  const { footage } = context.db;
  const row = await footage.findByPk(footageId, { transaction });
  if (!row) return;
  const others = footageOf(row).notes.filter((note) => !note.startsWith(ABOUT_TRACK));
  const notes = [...others, ...fresh.map((note) => ABOUT_TRACK + note)];
  const cells = { ...footageCells({ notes }), ...(attached ? { hasPointer: true } : {}) };
  await row.update(cells, { transaction });
}

async function footageFor(context: ServerContext, row: AnalysisRow): Promise<FootageRow> {
  const { footage } = context.db;
  return (await footage.findByPk(row.footageId)) ?? Promise.reject(notFound('footage'));
}

/** Only what still runs has something to tell before its end. */
async function tellSoFar(
  { db }: ServerContext,
  id: string,
  summary: Analysed['summary'],
): Promise<void> {
  await db.analyses.update({ summary: summaryCell(summary) }, { where: { id, status: 'waiting' } });
}

async function analyse(
  context: ServerContext,
  row: AnalysisRow,
  kind: AnalysisKind,
  target: string,
  attempt: Attempt,
): Promise<{ readonly found: Analysed; readonly mark: string | null }> {
  const footage = await footageFor(context, row);
  const facts = mediaFactsOf(footage);
  if (!facts) throw problem('footage-not-ready');
  const path = await context.stores.files.path(originalFile(footage));
  const mark = kind.repeatable ? await fingerprint(path) : null;
  const cached = mark === null ? null : await fromCache(context, row, mark, target);
  const found =
    cached ??
    (await kind.run(
      context,
      {
        ...{ footage, facts, path, parameters: row.parameters, target },
        tell: (summary) => tellSoFar(context, row.id, summary),
      },
      attempt,
    ));
  return { found, mark };
}

/** The folder in which attempts at an analysis write their results. */
const attemptsOf = (id: string): string => workFolder('analyses', id);

const clearAttempts = (id: string): Promise<void> =>
  rm(attemptsOf(id), { recursive: true, force: true });

/** Does an analysis that was asked for. */
export const analysisWork: Work = {
  // Each kind has limits of its own for what it starts.
  seconds: () => 8 * 3600,
  async run(context, id, attempt) {
    const row = await rowOf(context, id);
    const { kind: name } = await findAnalysis(context, id);
    const kind = analysisKind(name);
    const late = AbortSignal.timeout(kind.seconds() * 1000);
    const signal = AbortSignal.any([attempt.signal, late]);
    const part = join(attemptsOf(id), `${attempt.attempt}.json`);
    try {
      const { found, mark } = await analyse(context, row, kind, part, { ...attempt, signal });
      return async (transaction) => {
        const still = await row.reload({ transaction }).catch(() => null);
        if (!still) return clearAttempts(id);
        await kind.keep?.(context, row.footageId, part, transaction);
        await context.stores.files.put(resultFile(row), part);
        await clearAttempts(id);
        await kind.clear?.(context, row.footageId);
        const { summary, provenance, confidence, notes } = found;
        await row.update(
          {
            ...{ status: 'ready', error: null, fingerprint: mark, provenance, confidence },
            summary: summaryCell(summary),
          },
          { transaction },
        );
        if (row.kind === 'pointer')
          await noteTrack(context, row.footageId, notes, true, transaction);
      };
    } catch (error) {
      await rm(part, { force: true });
      throw error;
    }
  },
  failed: (context, id, sentence) => async (transaction) => {
    const { analyses } = context.db;
    const row = await analyses.findByPk(id, { transaction });
    await row?.update({ status: 'failed', error: sentence }, { transaction });
    const note = [`it was not attached. ${sentence}`];
    if (row?.kind === 'pointer') await noteTrack(context, row.footageId, note, false, transaction);
  },
  async clear(context, id) {
    await clearAttempts(id);
    const { analyses } = context.db;
    const row = await analyses.findByPk(id);
    const found = row && analysisOf(row);
    if (!found) return;
    await analysisKind(found.kind).clear?.(context, found.footageId);
  },
};
