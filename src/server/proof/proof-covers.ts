import { readFile, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Leak } from '@/core/proof/leaks';
import type { Project } from '@/core/project/model';
import type { ServerContext } from '../context';
import { fingerprint } from '../analyses/fingerprint';
import { exportOf } from '../db/rows/exports';
import { exportRange } from '../export/export-file';
import { exportedFile, renderTask } from '../export/job';
import { readManifest } from '../export/manifest';
import { newId } from '../ids';
import { probeMedia } from '../media/probe';
import { workFolder } from '../places';
import { notFound, problem } from '../problem';
import { runOrdered } from '../tools/run-ordered';
import type { FoundLeaks } from '../tools/leaks';
import type { LeakCheck } from './leak-check';

/** What came of looking for leaks in an export. */
export interface CoverProof {
  readonly leaks: readonly Leak[];
  /** The covers that could be held against what they hide. */
  readonly checked: readonly string[];
  /** As it was exported. */
  readonly project: Project;
  /** The instant of the timeline at which the export begins, in ticks. */
  readonly origin: number;
  /** The exported file. */
  readonly video: string;
}

/**
 * Looks for what is readable in an exported file that its covers are to hide.
 *
 * @throws Problem for an export that is not there or has no picture, and where a recording that it
 * was made of is another one by now
 */
export async function proofCovers(
  context: ServerContext,
  projectId: string,
  exportId: string,
  { signal, onProgress }: { signal: AbortSignal; onProgress: (share: number) => void },
): Promise<CoverProof> {
  const row = await context.db.exports.findOne({ where: { id: exportId, projectId } });
  if (!row) throw notFound('export');
  const { settings, result } = exportOf(row);
  if (!result) throw problem('export-not-done');
  const { project, inputs } = await readManifest(context, exportId, projectId, row.document);
  const task = await renderTask(context, projectId, project, settings, settings.frameRate);
  for (const [id, { known, file }] of Object.entries(inputs)) {
    const original = task.originals[id];
    const now = original && (await fingerprint(original.path));
    if (!now) throw problem('export-input-gone', known.name);
    if (file && !file.startsWith(now)) throw problem('export-input-replaced', known.name);
  }
  const video = await context.stores.files.path(exportedFile({ id: exportId, settings }));
  const { facts } = await probeMedia(video);
  if (!facts.hasVideo) throw problem('no-picture-to-proof');
  const origin = exportRange({ project }, settings).start;
  const check: LeakCheck = {
    ...{ task, origin, frames: result.frames },
    video: { path: video, facts },
  };
  const found = join(workFolder('proofs'), `${newId()}.json`);
  try {
    await runOrdered('leaks', check, [found], { signal, onProgress });
    const { leaks, checked } = JSON.parse(await readFile(found, 'utf8')) as FoundLeaks;
    return { leaks, checked, project, origin, video };
  } finally {
    await rm(found, { force: true });
  }
}
