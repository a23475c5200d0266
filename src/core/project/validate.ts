import { checkOf, type Fault } from '../schema/check';
import { migrate } from './migrations';
import { Project } from './model';
import type { Sources } from './sources';
import { structuralFaults } from './structure';

export type Validation = { readonly project: Project } | { readonly faults: readonly Fault[] };

const checkDocument = checkOf(Project);

/**
 * Checks a value from outside and brings an older version up to date.
 * The answer is either a whole, sound project or every fault found (50 at most of each kind).
 */
export function validateProject(value: unknown, sources: Sources): Validation {
  const migrated = migrate(value);
  if ('fault' in migrated) return { faults: [migrated.fault] };
  const checked = checkDocument(migrated.value);
  if ('faults' in checked) return checked;
  const faults = [...structuralFaults(checked.value, sources)].slice(0, 50);
  return faults.length ? { faults } : { project: checked.value };
}

/** Longer lists are checked whole, for their length too. */
const LONG_LIST = 10_000;
const LISTS = ['framings', 'layouts', 'pointer', 'callouts', 'steps', 'markers', 'groups'] as const;

/**
 * A document without what it shares with one that is known to be sound: only what is new of its
 * lists. Null where a list is so long that its length has to be checked.
 */
function newParts(before: Project, after: Project): object | null {
  const known = new Set<unknown>();
  for (const lane of before.lanes) for (const clip of lane.clips) known.add(clip);
  for (const list of LISTS) for (const item of before[list]) known.add(item);
  const isNew = (item: unknown) => !known.has(item);
  const parts: Record<string, unknown> = { ...after };
  for (const list of LISTS) {
    if (after[list].length > LONG_LIST) return null;
    parts[list] = (after[list] as readonly unknown[]).filter(isNew);
  }
  if (after.lanes.some((lane) => lane.clips.length > LONG_LIST)) return null;
  parts.lanes = after.lanes.map((lane) => ({ ...lane, clips: lane.clips.filter(isNew) }));
  return parts;
}

/**
 * `validateProject` for a document that an edit made of a sound one: of what both share, by
 * reference, the form is not checked again. Costs what was changed, and one walk over the rest.
 */
export function validateChanged(before: Project, after: Project, sources: Sources): Validation {
  const parts = newParts(before, after);
  // The places of faults are those in the whole document.
  if (!parts || 'faults' in checkDocument(parts)) return validateProject(after, sources);
  const faults = [...structuralFaults(after, sources)].slice(0, 50);
  return faults.length ? { faults } : { project: after };
}
