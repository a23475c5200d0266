import { gzipSync, gunzipSync } from 'node:zlib';
import { historyFits, readHistory } from '@/core/edit/check-history';
import { EMPTY_HISTORY, type History, type Versioned } from '@/core/edit/history';
import { applyHistoryDelta, readHistoryDelta } from '@/core/edit/history-delta';
import { PatchError } from '@/core/edit/patch';
import { PROJECT_VERSION, type Project } from '@/core/project/model';
import type { FootageFacts } from '@/core/project/sources';
import { validateProject } from '@/core/project/validate';
import type { Fault } from '@/core/schema/check';
import { checkJsonBounds, type JsonBounds } from '../http/json-bounds';
import { Problem, problem, type PlainProblem } from '../problem';
import { storedSteps, type StoredSteps } from './stored-steps';
import { summaryOf, type Summary } from './summary';

/*
 * Checking documents: pure work on texts, which takes long for large ones and then runs in a thread
 * (`check-pool`). What goes in and out is plain data, texts rather than objects, which are quick to
 * hand over.
 */

export type FactsById = Readonly<Record<string, FootageFacts>>;

export interface Refusal {
  readonly refused: PlainProblem;
  readonly faults: readonly Fault[];
}

/** A document that may be stored. */
export interface Storable extends StoredSteps {
  readonly document: string;
  /** The document compressed, as revisions are kept. */
  readonly packed: Uint8Array;
  readonly summary: Summary;
}

export type CheckedSave = (Storable & { readonly revision: number }) | Refusal;

/** What was found in the database for a project. */
export type CheckedStored =
  | { readonly document: string; readonly history: string; readonly notes: readonly string[] }
  | {
      readonly why: string;
      /** The state before the first change that can't be read, and how many were before it. */
      readonly good: { readonly document: string; readonly changes: number } | null;
    };

const refusal = (found: Problem, faults: readonly Fault[] = []): Refusal => ({
  refused: found.plain(),
  faults,
});

/** Makes ready for storing what is a whole, sound project; or says what is wrong with it. */
export function checkDocument(
  value: unknown,
  history: unknown,
  footage: FactsById,
): Storable | Refusal {
  const checked = validateProject(value, { footage, pointers: {} });
  if ('faults' in checked) {
    const [first] = checked.faults;
    return refusal(problem('save-unsound', first!.path, first!.message), checked.faults);
  }
  const read = readHistory(history);
  if ('fault' in read) return refusal(problem('save-history', read.fault));
  const document = JSON.stringify(checked.project);
  return {
    document,
    ...storedSteps(read.history),
    packed: gzipSync(document, { level: 3 }),
    summary: summaryOf(checked.project),
  };
}

/**
 * Checks the body of a request that saves a project: `{ revision, project, history }` and nothing
 * else.
 */
export function checkSave(bytes: Uint8Array, bounds: JsonBounds, footage: FactsById): CheckedSave {
  try {
    checkJsonBounds(bytes, bounds);
  } catch (error) {
    if (error instanceof Problem) return refusal(error);
    throw error;
  }
  let body: unknown;
  try {
    body = JSON.parse(Buffer.from(bytes).toString());
  } catch {
    return refusal(problem('bad-json'));
  }
  if (typeof body !== 'object' || body === null || Array.isArray(body))
    return refusal(problem('not-an-object'));
  const { revision, project, history, ...more } = body as Record<string, unknown>;
  const [unknown] = Object.keys(more);
  if (unknown !== undefined)
    return refusal(problem('bad-body', `property ${unknown.slice(0, 60)} should not exist`));
  if (!Number.isSafeInteger(revision) || (revision as number) < 1)
    return refusal(problem('bad-body', 'revision must be a whole number of at least 1'));
  const checked = checkDocument(project, history, footage);
  return 'refused' in checked ? checked : { ...checked, revision: revision as number };
}

function parsed(text: string): { value: unknown } | null {
  try {
    return { value: JSON.parse(text) };
  } catch {
    return null;
  }
}

/**
 * Checks what the database has of a project and brings it up to date. A history that can't be read
 * or does not fit is given up, and a note says so; a document that can't be read is told by the end
 * of a sentence.
 *
 * @param changes since the document was written whole, as texts
 */
export function checkStored(
  document: string,
  history: string,
  footage: FactsById,
  changes: readonly string[] = [],
): CheckedStored {
  const whole = checkWhole(document, history, footage);
  if (!changes.length || 'why' in whole) return whole;
  const project = JSON.parse(whole.document) as Project;
  const first: Versioned = { project, history: JSON.parse(whole.history) as History };
  const sources = { footage, pointers: {} };
  const isSound = (state: Versioned) => 'project' in validateProject(state.project, sources);
  const last = changes.reduce<Versioned | null>(
    (state, text) => state && changedBy(state, text),
    first,
  );
  if (last && isSound(last))
    return {
      document: JSON.stringify(last.project),
      history: JSON.stringify(last.history),
      notes: whole.notes,
    };
  // One by one, to find how far they can be read.
  let good = first;
  let count = 0;
  for (const text of changes) {
    const next = changedBy(good, text);
    if (!next || !isSound(next)) break;
    good = next;
    count++;
  }
  return {
    why: 'a change that was saved is cut off or garbled',
    good: { document: JSON.stringify(good.project), changes: count },
  };
}

/** A state after a change of the database; null when that can't be read or does not fit. */
function changedBy(state: Versioned, text: string): Versioned | null {
  const delta = readHistoryDelta(parsed(text)?.value);
  if (!delta) return null;
  try {
    return applyHistoryDelta(state, delta);
  } catch (error) {
    if (error instanceof PatchError) return null;
    throw error;
  }
}

/** `checkStored` without changes. */
function checkWhole(document: string, history: string, footage: FactsById): CheckedStored {
  const stored = parsed(document);
  if (!stored) return { why: 'its document is cut off or garbled', good: null };
  const checked = validateProject(stored.value, { footage, pointers: {} });
  if ('faults' in checked) {
    const [first] = checked.faults;
    return { why: `${first!.path} of its document ${first!.message}`, good: null };
  }
  const { project } = checked;
  const version = (stored.value as { version?: unknown }).version;
  const text = version === PROJECT_VERSION ? document : JSON.stringify(project);
  // Patches made for an older form of the document do not fit the new one.
  const old = version !== PROJECT_VERSION;
  const read = old ? { history: EMPTY_HISTORY } : readHistory(parsed(history)?.value);
  if ('history' in read && historyFits(project, read.history))
    return {
      document: text,
      history: old ? JSON.stringify(EMPTY_HISTORY) : history,
      notes: [],
    };
  return {
    document: text,
    history: JSON.stringify(EMPTY_HISTORY),
    notes: [
      'The undo history of this project was damaged and begins anew. The project itself is whole.',
    ],
  };
}

/** The text of a document that a revision keeps; null when it is damaged. */
export function unpack(packed: Uint8Array): string | null {
  try {
    return gunzipSync(packed, { maxOutputLength: 64 << 20 }).toString();
  } catch {
    return null;
  }
}
