import type { Transaction } from 'sequelize';
import type { ProjectSummary } from '@/contract/projects';
import { queueIngest } from './ingest/queue';
import { EMPTY_HISTORY } from '@/core/edit/history';
import { createProject } from '@/core/project/create';
import type { Project } from '@/core/project/model';
import type { FootageFacts } from '@/core/project/sources';
import type { TargetId } from '@/core/project/targets';
import { ticksToSeconds, type FrameRate } from '@/core/time/ticks';
import { shareAnalyses } from './analyses/analyses';
import type { ServerContext } from './context';
import { isoOf } from './db/stored';
import { checkDocument, type FactsById } from './documents/check';
import { findProject, openProject } from './documents/documents';
import { keepRevision } from './documents/revisions';
import { loadFacts } from './footage/facts';
import { footageFiles } from './footage/names';
import { listFootage } from './footage/view';
import { newId } from './ids';
import { notFound, Problem, problem } from './problem';

/** All projects, last changed first. Opens no document. */
export async function listProjects(context: ServerContext): Promise<ProjectSummary[]> {
  const { projects, footage } = context.db;
  const rows = await projects.findAll({
    where: { deletedAt: null },
    attributes: { exclude: ['document'] },
    order: [['updatedAt', 'DESC']],
  });
  const posters = await footage.findAll({
    where: { status: 'ready', deletedAt: null, role: ['screen', 'presenter'] },
    attributes: ['id', 'projectId', 'role'],
    order: [['createdAt', 'ASC']],
    raw: true,
  });
  // Of each project the first screen, or else the first presenter.
  const posterOf = new Map<string, string>();
  for (const role of ['presenter', 'screen'])
    for (const poster of [...posters].reverse())
      if (poster.role === role) posterOf.set(poster.projectId, poster.id);
  return rows.map(({ id, name, width, height, rateNum, rateDen, duration, updatedAt }) => ({
    id,
    name,
    picture:
      width && height && rateNum && rateDen
        ? {
            width,
            height,
            frameRate: { num: rateNum, den: rateDen },
            seconds: ticksToSeconds(Number(duration)),
          }
        : null,
    changedAt: isoOf(updatedAt),
    poster: posterOf.get(id) ?? null,
  }));
}

/** Makes an empty project. */
export async function newProject(
  context: ServerContext,
  name: string,
  width: number,
  height: number,
  frameRate: FrameRate,
  target?: TargetId,
): Promise<string> {
  let document: Project;
  try {
    document = createProject(width, height, frameRate, target);
  } catch (error) {
    throw problem('canvas-refused', (error as Error).message);
  }
  return insertProject(context, newId(), name, document);
}

/** Stores a new project, with what else belongs to it. */
async function insertProject(
  context: ServerContext,
  id: string,
  name: string,
  document: Project,
  footage: FactsById = {},
  also: (transaction: Transaction) => Promise<void> = () => Promise.resolve(),
): Promise<string> {
  const { projects } = context.db;
  const checked = checkDocument(document, EMPTY_HISTORY, footage);
  if ('refused' in checked) throw Problem.of(checked.refused);
  await context.db.transact(async (transaction) => {
    await projects.create(
      {
        id,
        name: cleanName(name),
        revision: 1,
        checkpoint: 1,
        deletedAt: null,
        document: checked.document,
        done: checked.done,
        ...checked.summary,
      },
      { transaction },
    );
    await keepRevision(context, id, 1, checked.packed, transaction);
    await also(transaction);
  });
  return id;
}

function cleanName(name: string): string {
  const clean = name.trim().slice(0, 200);
  if (!clean) throw problem('name-missing', 'project');
  return clean;
}

export async function renameProject(
  context: ServerContext,
  id: string,
  name: string,
): Promise<void> {
  await (await findProject(context, id)).update({ name: cleanName(name) });
}

/**
 * Marks a project as deleted, and ends all work on it; or takes that back while it has not been
 * purged. Recordings that were being prepared are prepared then; exports stay cancelled, and can be
 * started again.
 */
export async function setProjectDeleted(
  context: ServerContext,
  id: string,
  deleted: boolean,
): Promise<void> {
  const { projects } = context.db;
  await context.db.transact(async (transaction) => {
    const [count] = await projects.update(
      { deletedAt: deleted ? new Date() : null },
      { where: { id }, transaction },
    );
    if (!count) throw notFound('project');
    if (deleted) return context.queue.cancelAll({ projectId: id }, transaction);
    const { footage } = context.db;
    const where = { projectId: id, status: 'waiting' as const, deletedAt: null };
    for (const row of await footage.findAll({ where, attributes: ['id'], transaction }))
      await queueIngest(context, id, row.id, transaction);
  });
}

/**
 * A copy with footage of its own, so that deleting one leaves the other whole. Files get second
 * names, no copies.
 */
export async function duplicateProject(context: ServerContext, id: string): Promise<string> {
  const { footage } = context.db;
  const { name, project } = await openProject(context, id);
  const rows = (await footage.findAll({ where: { projectId: id } })).filter((row) => row.facts);
  const copyId = newId();
  const renamed = new Map(rows.map((row) => [row.id, newId()]));
  const facts: Record<string, FootageFacts> = {};
  for (const [old, known] of Object.entries(await loadFacts(context, id, { deleted: true })))
    facts[renamed.get(old)!] = { ...known, id: renamed.get(old)! };
  const rewired = JSON.parse(JSON.stringify(project), (key, value: unknown) =>
    key === 'footageId' ? (renamed.get(value as string) ?? value) : value,
  ) as Project;
  for (const [old, copied] of renamed)
    await context.stores.files.share(footageFiles(old), footageFiles(copied));
  return insertProject(context, copyId, `${name} (copy)`, rewired, facts, async (transaction) => {
    for (const row of rows) {
      const { createdAt: _, updatedAt: __, ...rest } = row.get({ plain: true });
      const copied = renamed.get(row.id)!;
      await footage.create({ ...rest, id: copied, projectId: copyId }, { transaction });
      await shareAnalyses(context, row.id, { id: copied, projectId: copyId }, transaction);
      if (row.status === 'waiting') await queueIngest(context, copyId, copied, transaction);
    }
  });
}

/** Size and rate that would fit the footage a project has, for the canvas settings. */
export async function suggestCanvas(
  context: ServerContext,
  id: string,
): Promise<{ width: number; height: number; frameRate: FrameRate | null } | null> {
  const screen = (await listFootage(context, id)).find(
    (f) => f.role === 'screen' && f.facts?.hasVideo,
  );
  return screen?.facts
    ? {
        width: screen.facts.width,
        height: screen.facts.height,
        frameRate: screen.facts.frameRate,
      }
    : null;
}
