import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { GoodRevision } from '@/contract/projects';
import { EMPTY_HISTORY, type History } from '@/core/edit/history';
import type { Project } from '@/core/project/model';
import type { ServerContext } from '../context';
import type { ProjectRow } from '../db/models';
import { loadFacts } from '../footage/facts';
import { dataFolder } from '../places';
import { notFound, Problem, problem } from '../problem';
import { changesSince, dropChanges, type StoredChange } from './changes';
import { checkDocument, unpack, type CheckedSave, type FactsById, type Storable } from './check';
import { checkSaveAside, checkStoredAside } from './check-pool';
import { keepRevision } from './revisions';
import { historyText, replaceSteps } from './steps';

/** A project as it is opened. */
export interface OpenProject {
  readonly id: string;
  readonly name: string;
  readonly project: Project;
  readonly history: History;
  readonly revision: number;
  /** Sentences on what was damaged and put right by itself. */
  readonly notes: readonly string[];
}

interface StoredProject {
  readonly row: ProjectRow;
  readonly document: string;
  readonly history: string;
  readonly notes: readonly string[];
}

/** A project that is not deleted, without its document. */
export async function findProject(context: ServerContext, id: string): Promise<ProjectRow> {
  const { projects } = context.db;
  const row = await projects.findOne({
    where: { id, deletedAt: null },
    attributes: { exclude: ['document'] },
  });
  return row ?? Promise.reject(notFound('project'));
}

/** All that the database has of a project's newest state. */
interface WholeProject {
  readonly row: ProjectRow;
  /** The text of its undo history. */
  readonly history: string;
  /** What was changed since document and history were written whole. */
  readonly since: readonly StoredChange[];
}

async function findWhole(context: ServerContext, id: string): Promise<WholeProject> {
  const { projects } = context.db;
  return context.db.snapshot(async (transaction) => {
    const row = await projects.findOne({ where: { id, deletedAt: null }, transaction });
    if (!row) throw notFound('project');
    return {
      row,
      history: await historyText(context, id, row.done, transaction),
      since: await changesSince(context, id, row.checkpoint, transaction),
    };
  });
}

type Good = GoodRevision & { readonly document: string };

/** A project's stored state, checked, with what changed since it was written whole. */
async function checkRow({ row, history, since }: WholeProject, footage: FactsById) {
  const checked = await checkStoredAside(
    String(row.document),
    history,
    footage,
    since.map(({ delta }) => delta),
  );
  // A change that is missing is like one that can't be read.
  if ('document' in checked && row.checkpoint + since.length !== row.revision)
    return { why: 'a change that was saved is missing', good: null };
  return checked;
}

/** The newest revision that can still be read; null when there is none. */
async function lastGood(
  context: ServerContext,
  whole: WholeProject,
  footage: FactsById,
): Promise<Good | null> {
  const { row } = whole;
  const { id } = row;
  const { revisions } = context.db;
  const checkedRow = await checkRow(whole, footage);
  if ('good' in checkedRow && checkedRow.good) {
    const { document, changes } = checkedRow.good;
    const last = whole.since[changes - 1];
    const savedAt = new Date(last?.savedAt ?? row.updatedAt).toISOString();
    return { revision: row.checkpoint + changes, savedAt, document };
  }
  const all = await revisions.findAll({
    where: { projectId: id },
    attributes: ['revision', 'savedAt'],
    order: [['revision', 'DESC']],
    raw: true,
  });
  for (const { revision, savedAt } of all) {
    const kept = await revisions.findOne({ where: { projectId: id, revision } });
    const text = kept && unpack(kept.document);
    if (text === null) continue;
    // From the copy of what was written whole last, the changes since lead on.
    const newest = revision === row.checkpoint;
    const since = newest ? whole.since : [];
    const history = newest ? whole.history : JSON.stringify(EMPTY_HISTORY);
    const deltas = since.map(({ delta }) => delta);
    const checked = await checkStoredAside(text, history, footage, deltas);
    const good =
      'document' in checked ? { document: checked.document, changes: since.length } : checked.good;
    if (!good) continue;
    const last = since[good.changes - 1]?.savedAt ?? savedAt;
    return {
      revision: revision + good.changes,
      savedAt: new Date(last).toISOString(),
      document: good.document,
    };
  }
  return null;
}

async function readStored(context: ServerContext, id: string): Promise<StoredProject> {
  const whole = await findWhole(context, id);
  const { row } = whole;
  const footage = await loadFacts(context, id, { deleted: true });
  const checked = await checkRow(whole, footage);
  if ('document' in checked) return { row, ...checked };
  const good = await lastGood(context, whole, footage);
  if (!good) throw problem('project-lost', checked.why).with({ name: row.name });
  const { revision, savedAt } = good;
  throw problem('project-damaged', checked.why).with({
    name: row.name,
    lastGood: { revision, savedAt } satisfies GoodRevision,
  });
}

/**
 * Opens a project.
 *
 * @throws Problem when it can't be read; it names the last good revision if there is one
 */
export async function openProject(context: ServerContext, id: string): Promise<OpenProject> {
  const { row, document, history, notes } = await readStored(context, id);
  return {
    id: row.id,
    name: row.name,
    project: JSON.parse(document) as Project,
    history: JSON.parse(history) as History,
    revision: row.revision,
    notes,
  };
}

/**
 * `openProject` as JSON text, with more properties; texts are joined, since large ones take long to
 * be made anew.
 */
export async function openProjectText(
  context: ServerContext,
  id: string,
  more: object,
): Promise<string> {
  const { row, document, history, notes } = await readStored(context, id);
  const head = JSON.stringify({
    ...more,
    id: row.id,
    name: row.name,
    revision: row.revision,
    notes,
  });
  return `${head.slice(0, -1)},"project":${document},"history":${history}}`;
}

const accepted = <T extends object>(checked: T | Extract<CheckedSave, { refused: unknown }>): T => {
  if (!('refused' in checked)) return checked;
  throw Problem.of(checked.refused).with(checked.faults.length ? { faults: checked.faults } : {});
};

/**
 * Stores a document in the place of a revision.
 *
 * @throws Problem when that revision is not the newest any more
 */
async function store(
  context: ServerContext,
  id: string,
  continues: number,
  { summary, document, steps, done, packed }: Storable,
) {
  const { projects } = context.db;
  return context.db.transact(async (transaction) => {
    const revision = continues + 1;
    const [count] = await projects.update(
      { document, done, revision, checkpoint: revision, ...summary },
      { where: { id, revision: continues, deletedAt: null }, transaction },
    );
    if (!count) throw problem('save-stale');
    await replaceSteps(context, id, steps, transaction);
    await dropChanges(context, id, transaction);
    await keepRevision(context, id, revision, packed, transaction);
    return revision;
  });
}

/**
 * Saves a document if it continues the revision that is stored.
 *
 * @returns the new revision
 * @throws Problem 409 when another tab or command saved meanwhile, 422 with all faults when it is
 * not sound
 */
export async function saveProject(
  context: ServerContext,
  id: string,
  document: unknown,
  history: unknown,
  revision: number,
): Promise<number> {
  await findProject(context, id);
  const footage = await loadFacts(context, id, { deleted: true });
  return store(context, id, revision, accepted(checkDocument(document, history, footage)));
}

/** `saveProject` from the bytes of a request. */
export async function saveProjectBytes(
  context: ServerContext,
  id: string,
  bytes: Uint8Array,
): Promise<number> {
  await findProject(context, id);
  const footage = await loadFacts(context, id, { deleted: true });
  const { revision, ...found } = accepted(await checkSaveAside(bytes, footage));
  return store(context, id, revision, found);
}

/** Replaces the document from outside, as one step; undo history starts anew. */
export async function replaceProject(
  context: ServerContext,
  id: string,
  document: unknown,
): Promise<number> {
  const { revision } = await findProject(context, id);
  return saveProject(context, id, document, EMPTY_HISTORY, revision);
}

/**
 * Opens a damaged project at its last good revision: what can't be read is put aside as it is, and
 * the good revision becomes the newest.
 *
 * @throws Problem when the project can be read, or the revision is not kept any more
 */
export async function openLastGood(
  context: ServerContext,
  id: string,
  wanted: number,
): Promise<number> {
  const whole = await findWhole(context, id);
  const { row } = whole;
  const footage = await loadFacts(context, id, { deleted: true });
  const checked = await checkRow(whole, footage);
  if ('document' in checked) throw problem('not-damaged');
  const good = await lastGood(context, whole, footage);
  if (good?.revision !== wanted) throw problem('revision-gone');
  await writeFile(
    join(dataFolder('damaged'), `${id}-${row.revision}-${Date.now()}.json`),
    `${String(row.document)}\n${whole.history}\n`,
  );
  const found = accepted(checkDocument(JSON.parse(good.document), EMPTY_HISTORY, footage));
  return store(context, id, row.revision, found);
}
