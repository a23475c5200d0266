import { Op, type Transaction } from 'sequelize';
import { historyLine, type History, type HistoryEntry } from '@/core/edit/history';
import type { ServerContext } from '../context';
import { surplus } from './stored-steps';

/*
 * The undo history as rows, one a step: of a history that may be megabytes long, writing a
 * document whole writes only the steps that are new. In order of their positions the rows are the
 * history's line, those done first, then those undone, the next to be done again in front; how many
 * are done stands with the project.
 */

/** So many rows go into the database with one statement. */
const ROWS = 64;

/** Where a step stands in the database, and the length of its text. */
interface Written {
  readonly position: number;
  readonly size: number;
}

const shared = globalThis as { vistumWrittenSteps?: WeakMap<HistoryEntry, Written> };
/**
 * The steps in memory of which it is known that they are stored, by reference: states that follow
 * from each other share the steps that stay. Whatever another process stored is read as new objects,
 * of which nothing is known, and is then written again once.
 */
const written = () => (shared.vistumWrittenSteps ??= new WeakMap());

/** Adds steps behind those that are stored. */
async function addSteps(
  { db: { steps } }: ServerContext,
  projectId: string,
  first: number,
  texts: readonly string[],
  transaction: Transaction,
): Promise<void> {
  for (let from = 0; from < texts.length; from += ROWS)
    await steps.bulkCreate(
      texts.slice(from, from + ROWS).map((step, i) => ({
        ...{ projectId, step },
        position: first + from + i,
      })),
      { transaction },
    );
}

/** Stores a history in the place of the one that a project has. */
export async function replaceSteps(
  context: ServerContext,
  projectId: string,
  texts: readonly string[],
  transaction: Transaction,
): Promise<void> {
  await context.db.steps.destroy({ where: { projectId }, transaction });
  await addSteps(context, projectId, 0, texts, transaction);
}

/** What writing a history comes to. */
export interface StepsWriting {
  /** So many of the stored steps are done. */
  readonly done: number;
  /** Removes and adds rows. */
  readonly write: (transaction: Transaction) => Promise<void>;
  /** To be called when the transaction stands. */
  readonly written: () => void;
}

/**
 * What has to be written so that a project's rows are a history. Costs what is new in it since it
 * was written last.
 */
export function stepsToWrite(
  context: ServerContext,
  projectId: string,
  history: History,
): StepsWriting {
  const whole = historyLine(history).map((entry) => {
    const known = written().get(entry);
    const text = known ? '' : JSON.stringify(entry);
    return { entry, position: known?.position ?? null, text, size: known?.size ?? text.length };
  });
  const gone = surplus(whole.map(({ size }) => size));
  const line = whole.slice(gone);
  const first = line[0]?.position ?? 0;
  const other = line.findIndex(({ position }, i) => position !== first + i);
  const stay = other < 0 ? line.length : other;
  // A step that stood elsewhere can't be told from one that is new.
  const fresh = line.slice(stay).map((one) => one.text || JSON.stringify(one.entry));
  const end = first + stay;
  return {
    done: Math.max(0, history.done.length - gone),
    write: async (transaction) => {
      const position = { [Op.or]: [{ [Op.lt]: first }, { [Op.gte]: end }] };
      await context.db.steps.destroy({ where: { projectId, position }, transaction });
      await addSteps(context, projectId, end, fresh, transaction);
    },
    written: () => {
      for (const [i, { entry, size }] of line.entries())
        written().set(entry, { position: first + i, size });
    },
  };
}

/**
 * The text of a project's stored history, `{"done":[…],"undone":[…]}`; empty, which is no history,
 * where a step is missing.
 *
 * @param done how many of the steps are done
 */
export async function historyText(
  { db: { steps } }: ServerContext,
  projectId: string,
  done: number,
  transaction: Transaction,
): Promise<string> {
  const rows = await steps.findAll({
    where: { projectId },
    attributes: ['position', 'step'],
    order: [['position', 'ASC']],
    raw: true,
    transaction,
  });
  const first = rows[0]?.position ?? 0;
  if (done > rows.length || rows.some(({ position }, i) => position !== first + i)) return '';
  const texts = rows.map(({ step }) => step);
  const undone = texts.slice(done).reverse();
  return `{"done":[${texts.slice(0, done).join()}],"undone":[${undone.join()}]}`;
}
