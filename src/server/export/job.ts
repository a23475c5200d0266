import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { nanoid } from 'nanoid';
import type { Project } from '@/core/project/model';
import { database } from '../db/connection';
import type { ExportRow, JobRow } from '../db/models';
import { listFootage, loadSources, findFootage, originalPath } from '../footage';
import { cancelJob, enqueue } from '../jobs/queue';
import type { JobContext } from '../jobs/context';
import { dataFolder } from '../places';
import { notFound, Problem } from '../problem';
import { openProject } from '../projects';
import { exportRange, exportFile } from './export-file';
import type { Original, RenderTask } from './render-frames';
import { FORMAT_FACTS } from '@/core/project/export-formats';
import { DEFAULT_SETTINGS, type ExportResult, type ExportSettings } from './settings';

const exportFolder = (id: string): string => dataFolder('exports', id);

/** Where a finished export lies. */
export const exportPath = ({ id, settings }: { id: string; settings: ExportSettings }): string =>
  join(exportFolder(id), `video.${FORMAT_FACTS[settings.format].extension}`);

/** Settings as they were stored; those of older exports lack what came later. */
const readSettings = (text: string): ExportSettings => ({
  ...DEFAULT_SETTINGS,
  ...(JSON.parse(text) as ExportSettings),
});

/** A project with all that rendering it takes: footage facts, tracks, and where the originals are. */
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
  if (settings.width % 2 || settings.height % 2)
    throw new Problem(400, 'Width and height of a video are even numbers.');
  const { name, project } = await openProject(projectId);
  exportRange({ project }, settings);
  const id = nanoid();
  await exports.create({
    id,
    projectId,
    name,
    settings: JSON.stringify(settings),
    document: JSON.stringify(project),
    result: null,
  });
  return { exportId: id, jobId: await enqueue('export', projectId, id) };
}

/** Does a queued export, or goes on with one that was interrupted. */
export async function runExport(exportId: string, { signal, report }: JobContext): Promise<void> {
  const { exports, jobs } = await database();
  const row = await exports.findByPk(exportId);
  if (!row) return;
  const settings = readSettings(row.settings);
  const task = await renderTask(
    row.projectId,
    JSON.parse(row.document) as Project,
    settings,
    settings.frameRate,
  );
  const folder = join(exportFolder(exportId), 'work');
  try {
    const result = await exportFile(
      task,
      settings,
      folder,
      exportPath({ id: exportId, settings }),
      { signal, onProgress: report },
    );
    await row.update({ result: JSON.stringify(result) });
  } catch (error) {
    // What a cancelled export has made goes; that of an interrupted one is kept to go on from.
    const job = await jobs.findOne({ where: { subject: exportId } });
    if (job?.status === 'cancelled') await rm(folder, { recursive: true, force: true });
    throw error;
  }
}

export interface ExportView {
  readonly id: string;
  readonly name: string;
  readonly settings: ExportSettings;
  readonly status: JobRow['status'];
  readonly progress: number;
  readonly message: string;
  readonly result: ExportResult | null;
  readonly createdAt: string;
}

/** The exports of a project, newest first. */
export async function listExports(projectId: string): Promise<ExportView[]> {
  const { exports, jobs } = await database();
  const rows = await exports.findAll({ where: { projectId }, order: [['createdAt', 'DESC']] });
  const all = await jobs.findAll({ where: { subject: rows.map((r) => r.id) } });
  return rows.map((row) =>
    viewOf(
      row,
      all.find((job) => job.subject === row.id),
    ),
  );
}

const viewOf = (row: ExportRow, job: JobRow | undefined): ExportView => ({
  id: row.id,
  name: row.name,
  settings: readSettings(row.settings),
  status: job?.status ?? 'failed',
  progress: job?.progress ?? 0,
  message: job?.message ?? '',
  result: row.result ? (JSON.parse(row.result) as ExportResult) : null,
  createdAt: row.createdAt.toISOString(),
});

export async function findExport(id: string): Promise<ExportView> {
  const { exports, jobs } = await database();
  const row = await exports.findByPk(id);
  if (!row) throw notFound('export');
  return viewOf(row, (await jobs.findOne({ where: { subject: id } })) ?? undefined);
}

/** Stops an export that is under way; its worker notices within a second and clears away what it has made. */
export async function cancelExport(id: string): Promise<void> {
  const { jobs } = await database();
  const job = await jobs.findOne({ where: { subject: id } });
  if (!job) throw notFound('export');
  await cancelJob(job.id);
}

/** Removes an export and its file. */
export async function deleteExport(id: string): Promise<void> {
  const { exports, jobs } = await database();
  await cancelExport(id);
  await rm(exportFolder(id), { recursive: true, force: true });
  await jobs.destroy({ where: { subject: id } });
  await exports.destroy({ where: { id } });
}

/** What came of an export that is done. */
export async function findExportResult(id: string): Promise<ExportResult> {
  const { result } = await findExport(id);
  if (!result) throw new Problem(409, 'That export is not done.');
  return result;
}
