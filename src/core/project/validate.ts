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
