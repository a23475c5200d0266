import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { nanoid } from 'nanoid';
import type { ExportResult, ExportSettings, ExportView } from '@/contract/exports';
import { FORMAT_FACTS } from '@/core/project/export-formats';
import type { Project } from '@/core/project/model';
import { database, inTransaction } from '../db/connection';
import type { ExportRow, JobRow } from '../db/models';
import { exportOf, resultCell, settingsCell } from '../db/rows/exports';
import { openProject } from '../documents/documents';
import { loadSources } from '../footage/facts';
import { originalPath } from '../footage/paths';
import { findFootage, listFootage } from '../footage/view';
import type { Work } from '../jobs/context';
import { cancelJob, enqueue } from '../jobs/queue';
import { limit } from '../limits';
import { dataFolder } from '../places';
import { notFound, problem } from '../problem';
import { exportRange, exportFile } from './export-file';
import { makeManifest, readManifest, removeInputs, taskOf } from './manifest';
import type { Original, RenderTask } from './render-frames';

const exportFolder = (id: string): string => dataFolder('exports', id);

/** Where a finished export lies. */
export const exportPath = ({ id, settings }: { id: string; settings: ExportSettings }): string =>
  join(exportFolder(id), `video.${FORMAT_FACTS[settings.format].extension}`);

/**
 * A project as it is now with all that rendering it takes, for a picture that is made at once.
 */
export async function renderTask(
  projectId: string,
  project: Project,
  size: { width: number; height: number },
  rate: RenderTask['rate'],
): Promise<RenderTask> {
  const originals: Record<string, Original> = {};
  for (const view of await listFootage(projectId))
    if (view.facts)
      originals[view.id] = { path: originalPath(await findFootage(view.id)), facts: view.facts };
  return { project, sources: await loadSources(projectId), originals, output: size, rate };
}

/** Queues an export of a project as it is now. */
export async function requestExport(
  projectId: string,
  settings: ExportSettings,
): Promise<{ exportId: string; jobId: string }> {
  const { exports } = await database();
  if (settings.width % 2 || settings.height % 2) throw problem('size-odd');
  const { name, project } = await openProject(projectId);
  exportRange({ project }, settings);
  const id = nanoid();
  try {
    const manifest = await makeManifest(id, projectId, project);
    return await inTransaction(async (transaction) => {
      await exports.create(
        {
          id,
          projectId,
          name,
          settings: settingsCell(settings),
          document: JSON.stringify(manifest),
          result: null,
        },
        { transaction },
      );
      return { exportId: id, jobId: await enqueue('export', projectId, id, transaction) };
    });
  } catch (error) {
    await rm(exportFolder(id), { recursive: true, force: true });
    throw error;
  }
}

const workFolder = (exportId: string): string => dataFolder('exports', exportId, 'work');

/** Does a queued export, or goes on with one that was interrupted. */
export const exportWork: Work = {
  seconds: () => limit('exportSeconds'),
  async run(exportId, { signal, report }) {
    const { exports } = await database();
    const row = await exports.findByPk(exportId);
    if (!row) return () => Promise.resolve();
    const { settings } = exportOf(row);
    const manifest = await readManifest(exportId, row.projectId, row.document);
    const task = await taskOf(exportId, manifest, settings, settings.frameRate);
    const target = exportPath({ id: exportId, settings });
    const result = await exportFile(task, settings, workFolder(exportId), target, {
      signal,
      onProgress: report,
    });
    return async (transaction) => {
      await exports.update(
        { result: resultCell(result) },
        { where: { id: exportId }, transaction },
      );
    };
  },
  // What an export that was interrupted has made is kept to go on from; for others there is no use
  // for it.
  done: removeInputs,
  async clear(exportId) {
    await rm(workFolder(exportId), { recursive: true, force: true });
    await removeInputs(exportId);
  },
};

/** The exports of a project, newest first. */
export async function listExports(projectId: string): Promise<ExportView[]> {
  const { exports, jobs } = await database();
  const rows = await exports.findAll({
    where: { projectId },
    attributes: { exclude: ['document'] },
    order: [['createdAt', 'DESC']],
  });
  const all = await jobs.findAll({ where: { subject: rows.map((r) => r.id) } });
  return rows.map((row) =>
    viewOf(
      row,
      all.find((job) => job.subject === row.id),
    ),
  );
}

function viewOf(row: ExportRow, job: JobRow | undefined): ExportView {
  const { projectId: _, ...told } = exportOf(row);
  return {
    ...told,
    status: job?.status ?? 'failed',
    progress: job?.progress ?? 0,
    message: job?.message ?? '',
  };
}

export async function findExport(id: string): Promise<ExportView> {
  const { exports, jobs } = await database();
  const row = await exports.findByPk(id, { attributes: { exclude: ['document'] } });
  if (!row) throw notFound('export');
  return viewOf(row, (await jobs.findOne({ where: { subject: id } })) ?? undefined);
}

/** An export whose project was not deleted. */
export async function findServedExport(id: string): Promise<ExportView> {
  const { exports, projects } = await database();
  const row = await exports.findByPk(id, { attributes: ['projectId'] });
  const owned =
    row && (await projects.count({ where: { id: row.projectId, deletedAt: null } })) > 0;
  if (!owned) throw notFound('export');
  return findExport(id);
}

/**
 * Stops an export that is under way; its worker notices within a second and clears away what it has
 * made.
 */
export async function cancelExport(id: string): Promise<void> {
  const { jobs } = await database();
  const job = await jobs.findOne({ where: { subject: id } });
  if (!job) throw notFound('export');
  const waiting = job.status === 'queued';
  await cancelJob(job.id);
  if (waiting) await exportWork.clear!(id);
}

/** Removes an export and its file. */
export async function deleteExport(id: string): Promise<void> {
  const { exports, jobs } = await database();
  await cancelExport(id);
  await inTransaction(async (transaction) => {
    await jobs.destroy({ where: { subject: id }, transaction });
    await exports.destroy({ where: { id }, transaction });
  });
  await rm(exportFolder(id), { recursive: true, force: true });
}

/** What came of an export that is done. */
export async function findExportResult(id: string): Promise<ExportResult> {
  const { result } = await findExport(id);
  if (!result) throw problem('export-not-done');
  return result;
}
