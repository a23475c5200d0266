import { nanoid } from 'nanoid';
import { doEdit } from '@/core/edit/history';
import {
  editKind,
  EDITS,
  prepareEdit,
  type EditArgs,
  type EditId,
  type EditResult,
} from '@/core/edit/registry';
import { usedFootage } from '@/core/project/query';
import { checkOf } from '@/core/schema/check';
import type { ServerContext } from '@/server/context';
import { openProject, saveProject } from '@/server/documents/documents';
import { loadSources } from '@/server/footage/facts';
import { problem } from '@/server/problem';
import { required, UsageError } from './arguments';
import type { Answer, Call } from './call';

const isEdit = (id: string): id is EditId => Object.hasOwn(EDITS, id);

/**
 * Does an edit to a project and saves it as one step of its undo history.
 *
 * @returns what the edit answers, and the project's revision afterwards
 * @throws EditError or Problem when it can't be done; the project is then as it was
 */
export async function editProject<I extends EditId>(
  context: ServerContext,
  projectId: string,
  id: I,
  args: EditArgs<I>,
): Promise<{ readonly result: EditResult<I>; readonly revision: number }> {
  const before = await openProject(context, projectId);
  const sources = await loadSources(context, projectId, usedFootage(before.project.lanes));
  const { label, edit, result } = prepareEdit(id, args, before.project, sources, nanoid);
  const next = doEdit(before, label, edit);
  const revision =
    next === before
      ? before.revision
      : await saveProject(context, projectId, next.project, next.history, before.revision);
  return { result: result(), revision };
}

/** The edits there are, each with the names of its arguments. */
function list(): Answer {
  const edits = (Object.keys(EDITS) as EditId[]).map((id) => {
    const { label, args } = editKind(id);
    return { id, label: typeof label === 'string' ? label : null, args };
  });
  const lines = edits.map(({ id, args }) => `${id} ${Object.keys(args.properties).join(' ')}`);
  return { json: edits, text: lines.map((line) => line.trim()).join('\n') };
}

function readArgs(text: string | undefined): unknown {
  try {
    return JSON.parse(text ?? '{}');
  } catch {
    throw new UsageError('--args is a JSON object, as in \'{"time": 705600000}\'.');
  }
}

/** `vistum edit`: does one edit, or lists them all. */
export async function edit({ operands, values, open }: Call): Promise<Answer> {
  if (values.list) return list();
  const projectId = required(operands[0], 'PROJECT');
  const id = required(operands[1], 'EDIT');
  if (!isEdit(id)) throw problem('edit-unknown', id);
  const checked = checkOf(editKind(id).args)(readArgs(values.args));
  if ('faults' in checked) throw problem('edit-arguments', id).with({ faults: checked.faults });
  const done = await editProject(await open(), projectId, id, checked.value as EditArgs<typeof id>);
  const { result = null, revision } = done as { result?: unknown; revision: number };
  return { json: { project: projectId, revision, result }, text: `Revision ${revision}` };
}
