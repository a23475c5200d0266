import { newId } from './ids';
import { EMPTY_HISTORY, type History } from '@/core/edit/history';
import { createProject } from '@/core/project/create';
import { PROJECT_VERSION, type Project } from '@/core/project/model';
import type { TargetId } from '@/core/project/targets';
import { validateProject } from '@/core/project/validate';
import { ticksToSeconds, type FrameRate } from '@/core/time/ticks';
import { projectDuration } from '@/core/project/query';
import { cp } from 'node:fs/promises';
import { database } from './db/connection';
import type { ProjectRow } from './db/models';
import { footageFolder, listFootage, loadSources } from './footage';
import { notFound, Problem } from './problem';

export interface ProjectSummary {
  readonly id: string;
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly frameRate: FrameRate;
  readonly seconds: number;
  readonly changedAt: string;
  /** Footage whose thumbnail stands for the project. */
  readonly poster: string | null;
}

export interface OpenProject {
  readonly id: string;
  readonly name: string;
  readonly project: Project;
  readonly history: History;
  readonly revision: number;
}

const MOST_HISTORY = 8 << 20;

export async function findProject(id: string): Promise<ProjectRow> {
  const { projects } = await database();
  return (
    (await projects.findOne({ where: { id, deletedAt: null } })) ??
    Promise.reject(notFound('project'))
  );
}

/** All projects, last changed first. */
export async function listProjects(): Promise<ProjectSummary[]> {
  const { projects, footage } = await database();
  const rows = await projects.findAll({
    where: { deletedAt: null },
    order: [['updatedAt', 'DESC']],
  });
  const posters = await footage.findAll({
    where: { status: 'ready', deletedAt: null },
    attributes: ['id', 'projectId', 'role'],
    order: [['createdAt', 'ASC']],
  });
  return rows.map((row) => {
    const project = JSON.parse(row.document) as Project;
    return {
      id: row.id,
      name: row.name,
      width: project.canvas.width,
      height: project.canvas.height,
      frameRate: project.canvas.frameRate,
      seconds: ticksToSeconds(projectDuration(project)),
      changedAt: row.updatedAt.toISOString(),
      poster:
        (
          posters.find((p) => p.projectId === row.id && p.role === 'screen') ??
          posters.find((p) => p.projectId === row.id && p.role === 'presenter')
        )?.id ?? null,
    };
  });
}

/** Makes an empty project. */
export async function newProject(
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
    throw new Problem(400, (error as Error).message);
  }
  return insertProject(name, document);
}

async function insertProject(name: string, document: Project, id = newId()): Promise<string> {
  const { projects } = await database();
  await projects.create({
    id,
    name: cleanName(name),
    document: JSON.stringify(document),
    history: JSON.stringify(EMPTY_HISTORY),
    revision: 1,
    deletedAt: null,
  });
  return id;
}

function cleanName(name: string): string {
  const clean = name.trim().slice(0, 200);
  if (!clean) throw new Problem(400, 'A project needs a name.');
  return clean;
}

export async function openProject(id: string): Promise<OpenProject> {
  const row = await findProject(id);
  const stored = JSON.parse(row.document) as { version?: unknown };
  const checked = validateProject(stored, await loadSourcesWithDeleted(id));
  if ('faults' in checked)
    throw new Problem(
      500,
      `The project can’t be read: ${checked.faults[0]!.path} ${checked.faults[0]!.message}.`,
      {
        faults: checked.faults,
      },
    );
  // Patches made for an older form of the document do not fit the new one.
  const history =
    stored.version === PROJECT_VERSION ? (JSON.parse(row.history) as History) : EMPTY_HISTORY;
  return { id: row.id, name: row.name, project: checked.project, history, revision: row.revision };
}

/** Footage that was taken out may still be named by the undo history and by the document of another tab. */
async function loadSourcesWithDeleted(projectId: string) {
  const { footage } = await database();
  const sources = await loadSources(projectId);
  const gone = await footage.findAll({
    where: { projectId },
    attributes: ['id', 'name', 'role', 'facts', 'deletedAt'],
  });
  const all = { ...sources.footage };
  for (const row of gone)
    if (row.deletedAt && row.facts)
      all[row.id] = {
        id: row.id,
        name: row.name,
        role: row.role as never,
        ...(JSON.parse(row.facts) as object),
      } as never;
  return { ...sources, footage: all };
}

/**
 * Saves a document if it continues the revision that is stored.
 * @throws Problem 409 when another tab or command saved meanwhile, 422 with all faults when it is not sound
 */
export async function saveProject(
  id: string,
  document: unknown,
  history: History,
  revision: number,
): Promise<number> {
  const { projects } = await database();
  await findProject(id);
  const checked = validateProject(document, await loadSourcesWithDeleted(id));
  if ('faults' in checked)
    throw new Problem(
      422,
      `The project was not saved: ${checked.faults[0]!.path} ${checked.faults[0]!.message}.`,
      {
        faults: checked.faults,
      },
    );
  // A history that grew out of all proportion loses its oldest part, not the save.
  let done = history.done;
  let text = JSON.stringify({ done, undone: history.undone });
  while (text.length > MOST_HISTORY && done.length) {
    done = done.slice(Math.ceil(done.length / 4));
    text = JSON.stringify({ done, undone: history.undone });
  }
  const [count] = await projects.update(
    { document: JSON.stringify(checked.project), history: text, revision: revision + 1 },
    { where: { id, revision, deletedAt: null } },
  );
  if (!count)
    throw new Problem(
      409,
      'This project was changed in another tab or by a command. Load the newer version to go on from there.',
    );
  return revision + 1;
}

/** Replaces the document from outside, as one step; undo history starts anew. */
export async function replaceProject(id: string, document: unknown): Promise<number> {
  const { revision } = await findProject(id);
  return saveProject(id, document, EMPTY_HISTORY, revision);
}

export async function renameProject(id: string, name: string): Promise<void> {
  await (await findProject(id)).update({ name: cleanName(name) });
}

/** Marks a project as deleted, or takes that back. */
export async function setProjectDeleted(id: string, deleted: boolean): Promise<void> {
  const { projects } = await database();
  const row = await projects.findByPk(id);
  if (!row) throw notFound('project');
  await row.update({ deletedAt: deleted ? new Date() : null });
}

/** A copy with footage of its own, so that deleting one leaves the other whole. */
export async function duplicateProject(id: string): Promise<string> {
  const { footage } = await database();
  const { name, project } = await openProject(id);
  const copyId = await insertProject(`${name} (copy)`, project);
  const renamed = new Map<string, string>();
  for (const row of await footage.findAll({ where: { projectId: id, status: 'ready' } })) {
    const copied = newId();
    renamed.set(row.id, copied);
    await cp(footageFolder(row.id), footageFolder(copied), { recursive: true });
    const {
      id: _,
      projectId: __,
      createdAt: ___,
      updatedAt: ____,
      ...rest
    } = row.get({ plain: true });
    await footage.create({ ...rest, id: copied, projectId: copyId });
  }
  const rewired = JSON.parse(JSON.stringify(project), (key, value: unknown) =>
    key === 'footageId' ? (renamed.get(value as string) ?? value) : value,
  ) as Project;
  await replaceProject(copyId, rewired);
  return copyId;
}

/** Size and rate that would fit the footage a project has, for the canvas settings. */
export async function suggestCanvas(
  id: string,
): Promise<{ width: number; height: number; frameRate: FrameRate | null } | null> {
  const screen = (await listFootage(id)).find((f) => f.role === 'screen' && f.facts?.hasVideo);
  return screen?.facts
    ? { width: screen.facts.width, height: screen.facts.height, frameRate: screen.facts.frameRate }
    : null;
}
