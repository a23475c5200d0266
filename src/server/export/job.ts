import { rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { setImmediate } from 'node:timers/promises';
import { nanoid } from 'nanoid';
import type { ExportResult, ExportSettings, ExportView } from '@/contract/exports';
import { findLinks } from '@/core/frame/links';
import { FORMAT_FACTS } from '@/core/project/export-formats';
import type { Project } from '@/core/project/model';
import { shownFootage } from '@/core/project/query';
import type { MatteFacts } from '@/core/project/sources';
import { matteFile, mattesOf } from '../analyses/mattes';
import type { ServerContext } from '../context';
import type { ExportRow, JobRow } from '../db/models';
import { exportOf, resultCell, settingsCell, settingsOf } from '../db/rows/exports';
import { openProject } from '../documents/documents';
import { loadSources } from '../footage/facts';
import { footageFile, originalFile, PART_FILES } from '../footage/names';
import { findFootage, listFootage } from '../footage/view';
import type { Work } from '../jobs/work';
import { limit } from '../limits';
import { proofSubject } from '../proof/subject';
import { workFolder } from '../places';
import { notFound, problem } from '../problem';
import { exportRange, exportFile } from './export-file';
import { exportFiles, makeManifest, readManifest, removeInputs, taskOf } from './manifest';
import type { Original, RenderTask } from './render-frames';

const fileName = ({ format }: ExportSettings): string => `video.${FORMAT_FACTS[format].extension}`;

/** The name in the store of a finished export. */
export const exportedFile = ({ id, settings }: { id: string; settings: ExportSettings }): string =>
  `${exportFiles(id)}/${fileName(settings)}`;

const LINKS_FILE = 'links.json';

/** The name in the store of where an export can be pressed; only those with links have it. */
export const exportedLinks = (id: string): string => `${exportFiles(id)}/${LINKS_FILE}`;

/** Where an export can be pressed; the worker does other things meanwhile. */
async function linksOf(task: RenderTask, settings: ExportSettings, signal: AbortSignal) {
  const { project, sources, rate, output } = task;
  const search = findLinks(project, sources, exportRange(task, settings), rate, output);
  for (let step = search.next(); ; step = search.next()) {
    if (step.done) return step.value;
    await setImmediate();
    signal.throwIfAborted();
  }
}

/**
 * A project as it is now with all that rendering it takes, for a picture that is made at once.
 */
export async function renderTask(
  context: ServerContext,
  projectId: string,
  project: Project,
  size: { width: number; height: number },
  rate: RenderTask['rate'],
): Promise<RenderTask> {
  const originals: Record<string, Original> = {};
  const made = await mattesOf(context, projectId);
  const matteAt = async ({ id }: MatteFacts) =>
    [id, await context.stores.files.path(await matteFile(context, id))] as const;
  for (const view of await listFootage(context, projectId))
    if (view.facts) {
      const file = originalFile(await findFootage(context, view.id));
      originals[view.id] = {
        path: await context.stores.files.path(file),
        facts: view.facts,
        mattes: Object.fromEntries(await Promise.all((made[view.id] ?? []).map(matteAt))),
        ...(view.facts.kind === 'image' && {
          still: await context.stores.files.path(footageFile(view.id, PART_FILES.still.file)),
        }),
      };
    }
  return {
    project,
    sources: await loadSources(context, projectId, shownFootage(project)),
    originals,
    output: size,
    rate,
  };
}

/** Queues an export of a project as it is now. */
export async function requestExport(
  context: ServerContext,
  projectId: string,
  settings: ExportSettings,
): Promise<{ exportId: string; jobId: string }> {
  const { exports } = context.db;
  if (settings.width % 2 || settings.height % 2) throw problem('size-odd');
  const { name, project } = await openProject(context, projectId);
  exportRange({ project }, settings);
  const id = nanoid();
  try {
    const manifest = await makeManifest(context, id, projectId, project);
    return await context.db.transact(async (transaction) => {
      const there = await exports.findAll({
        where: { projectId },
        attributes: ['name', 'settings'],
        transaction,
      });
      await exports.create(
        {
          id,
          projectId,
          name: distinctName(name, settings, there),
          settings: settingsCell(settings),
          document: JSON.stringify(manifest),
          result: null,
        },
        { transaction },
      );
      return {
        exportId: id,
        jobId: await context.queue.enqueue('export', projectId, id, transaction),
      };
    });
  } catch (error) {
    await context.stores.files.remove(exportFiles(id));
    throw error;
  }
}

/** The project's name for an export; with a number where one of the format has that already. */
function distinctName(
  name: string,
  { format }: ExportSettings,
  there: readonly Pick<ExportRow, 'name' | 'settings'>[],
): string {
  const taken = new Set(
    there.filter((row) => settingsOf(row.settings).format === format).map((row) => row.name),
  );
  let found = name;
  for (let n = 2; taken.has(found); n++) found = `${name} ${n}`;
  return found;
}

/** The folder in which an export is made; what is there of an earlier attempt is gone on from. */
const attemptFolder = (exportId: string): string => workFolder('exports', exportId);

const clearAttempts = (exportId: string): Promise<void> =>
  rm(attemptFolder(exportId), { recursive: true, force: true });

/** Does a queued export, or goes on with one that was interrupted. */
export const exportWork: Work = {
  seconds: () => limit('exportSeconds'),
  async run(context, exportId, { signal, report }) {
    const { exports } = context.db;
    const row = await exports.findByPk(exportId);
    if (!row) return () => Promise.resolve();
    const { settings } = exportOf(row);
    const manifest = await readManifest(context, exportId, row.projectId, row.document);
    const task = await taskOf(context, exportId, manifest, settings, settings.frameRate);
    const folder = attemptFolder(exportId);
    const target = join(folder, fileName(settings));
    const result = await exportFile(task, settings, folder, target, {
      signal,
      onProgress: report,
    });
    const isVideo = FORMAT_FACTS[settings.format].picture === 'video';
    const found = isVideo ? await linksOf(task, settings, signal) : null;
    const links = found?.links.length ?? 0;
    const linksTarget = join(folder, LINKS_FILE);
    if (links) await writeFile(linksTarget, JSON.stringify(found));
    return async (transaction) => {
      const { files } = context.stores;
      await files.put(exportedFile({ id: exportId, settings }), target);
      if (links) await files.put(exportedLinks(exportId), linksTarget);
      await exports.update(
        { result: resultCell({ ...result, ...(links && { links }) }) },
        { where: { id: exportId }, transaction },
      );
    };
  },
  // What an export that was interrupted has made is kept to go on from; for others there is no use
  // for it.
  async done(context, exportId) {
    await clearAttempts(exportId);
    await removeInputs(context, exportId);
  },
  async clear(context, exportId) {
    await clearAttempts(exportId);
    await removeInputs(context, exportId);
  },
};

/** The exports of a project, newest first. */
export async function listExports(
  context: ServerContext,
  projectId: string,
): Promise<ExportView[]> {
  const { exports, jobs } = context.db;
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

export async function findExport(context: ServerContext, id: string): Promise<ExportView> {
  const { exports, jobs } = context.db;
  const row = await exports.findByPk(id, { attributes: { exclude: ['document'] } });
  if (!row) throw notFound('export');
  return viewOf(row, (await jobs.findOne({ where: { subject: id } })) ?? undefined);
}

/** An export whose project was not deleted. */
export async function findServedExport(context: ServerContext, id: string): Promise<ExportView> {
  const { exports, projects } = context.db;
  const row = await exports.findByPk(id, { attributes: ['projectId'] });
  const owned =
    row && (await projects.count({ where: { id: row.projectId, deletedAt: null } })) > 0;
  if (!owned) throw notFound('export');
  return findExport(context, id);
}

/**
 * Stops an export that is under way; its worker notices within a second and clears away what it has
 * made.
 */
export async function cancelExport(context: ServerContext, id: string): Promise<void> {
  const { jobs } = context.db;
  const job = await jobs.findOne({ where: { subject: id } });
  if (!job) throw notFound('export');
  const waiting = job.status === 'queued';
  await context.queue.cancel(job.id);
  if (waiting) await exportWork.clear!(context, id);
}

/** Removes an export and its file. */
export async function deleteExport(context: ServerContext, id: string): Promise<void> {
  const { exports, jobs } = context.db;
  await cancelExport(context, id);
  await context.db.transact(async (transaction) => {
    await context.queue.cancelAll({ subject: proofSubject(id) }, transaction);
    await jobs.destroy({ where: { subject: [id, proofSubject(id)] }, transaction });
    await exports.destroy({ where: { id }, transaction });
  });
  await clearAttempts(id);
  await context.stores.files.remove(exportFiles(id));
}

/** What came of an export that is done. */
export async function findExportResult(context: ServerContext, id: string): Promise<ExportResult> {
  const { result } = await findExport(context, id);
  if (!result) throw problem('export-not-done');
  return result;
}
