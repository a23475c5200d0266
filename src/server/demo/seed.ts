import { copyFile, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { nanoid } from 'nanoid';
import type { WallEstimate } from '@/core/key/wall';
import { rateFromNumber } from '@/core/time/ticks';
import { summaryOf, type ScreenSight } from '@/core/vision/screen-sight';
import type { ServerContext } from '../context';
import { noteAnalysis, readResult, requestAnalysis } from '../analyses/analyses';
import { matteParameters } from '../analyses/request-matte';
import { assembleDemo, DEMO_FOOTAGE, DEMO_LAYOUT, DEMO_NAME, type Scenario } from './assemble';
import { replaceProject } from '../documents/documents';
import { addFootage } from '../footage/add';
import { loadSources } from '../footage/facts';
import { attachTrack } from '../footage/attach-track';
import { completeJob } from '../jobs/complete';
import { newId } from '../ids';
import { programRoot, workFolder } from '../places';
import { listPresets, savePreset } from '../presets';
import { newProject } from '../projects';

const DEMO_ID = 'demo-glaze-firing';

/** Makes the demo project unless it is there; answers its id. */
export async function seedDemo(
  context: ServerContext,
  onProgress: (message: string) => void,
): Promise<string> {
  const { projects } = context.db;
  const there = await projects.findByPk(DEMO_ID);
  if (there && !there.deletedAt && there.revision > 1) return DEMO_ID;
  if (there) await projects.update({ id: `deleted-${nanoid()}` }, { where: { id: DEMO_ID } });
  const media = (file: string) => join(programRoot(), 'demo', 'media', file);
  const scenario = JSON.parse(await readFile(media('scenario.json'), 'utf8')) as Scenario;
  const made = await newProject(context, DEMO_NAME, 1920, 1080, rateFromNumber(30));
  const ids = new Map<string, string>();
  for (const [index, item] of DEMO_FOOTAGE.entries()) {
    onProgress(`Preparing ${item.file} (${index + 1} of ${DEMO_FOOTAGE.length})`);
    const { footageId, jobId } = await addFootage(context, {
      projectId: made,
      path: media(item.file),
      name: item.file,
      role: item.role,
      take: false,
    });
    await completeJob(context, jobId, new AbortController().signal);
    if ('pointer' in item)
      await attachTrack(context, footageId, await readFile(media(item.pointer), 'utf8'));
    if ('matte' in item) await noteMatte(context, footageId, media(item.matte));
    if ('sight' in item) await noteSight(context, footageId, media(item.sight));
    ids.set(item.file, footageId);
  }
  const { id: wallId, jobId } = await requestAnalysis(
    context,
    ids.get('presenter-take-2.mp4')!,
    'wall',
  );
  if (jobId) await completeJob(context, jobId, new AbortController().signal);
  const wall = JSON.parse(String(await readResult(context, wallId))) as WallEstimate | null;
  await replaceProject(
    context,
    made,
    assembleDemo(
      (file) => ids.get(file)!,
      await loadSources(context, made, new Set(ids.values())),
      scenario,
      wall,
      nanoid,
    ),
  );
  // What somebody saved under its name stays theirs.
  const saved = await listPresets(context, 'layout');
  if (!saved.some(({ name }) => name === DEMO_LAYOUT.name))
    await savePreset(context, 'layout', DEMO_LAYOUT.name, DEMO_LAYOUT);
  const { footage, jobs, revisions, analyses, sequelize } = context.db;
  // Only a whole demo gets the demo's id, so that an interrupted seeding is done again.
  await sequelize.query('PRAGMA foreign_keys = OFF');
  await projects.update({ id: DEMO_ID }, { where: { id: made } });
  await footage.update({ projectId: DEMO_ID }, { where: { projectId: made } });
  await jobs.update({ projectId: DEMO_ID }, { where: { projectId: made } });
  await revisions.update({ projectId: DEMO_ID }, { where: { projectId: made } });
  await analyses.update({ projectId: DEMO_ID }, { where: { projectId: made } });
  await sequelize.query('PRAGMA foreign_keys = ON');
  return DEMO_ID;
}

/** Notes what was found in a recording before. */
async function noteSight(context: ServerContext, footageId: string, path: string): Promise<void> {
  const sight = JSON.parse(await readFile(path, 'utf8')) as ScreenSight;
  const part = join(workFolder('analyses'), newId());
  await copyFile(path, part);
  const summary = { ...summaryOf(sight) };
  const { confidence } = summary;
  const found = { summary, provenance: 'found', confidence, notes: [] } as const;
  await noteAnalysis(context, footageId, 'screen', found, part);
}

/** Notes the matte that was made of a recording before. */
async function noteMatte(context: ServerContext, footageId: string, path: string): Promise<void> {
  const part = join(workFolder('analyses'), newId());
  await copyFile(path, part);
  const task = { method: 'person', shot: null } as const;
  const summary = { ...task, ...STUDIO_MATTE };
  const found = { summary, provenance: 'found', confidence: 1, notes: [] } as const;
  await noteAnalysis(context, footageId, 'matte', found, part, matteParameters(task));
}

/** The matte of the studio's take, as `vistum matte` told. */
const STUDIO_MATTE = { width: 480, height: 270, seen: 1, behind: 0.73 };
