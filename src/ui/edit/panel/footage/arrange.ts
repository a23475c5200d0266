import type { FootageView } from '@/contract/footage';
import type { Role } from '@/core/project/sources';

export const SORTS = [
  ['added', 'Order added'],
  ['name', 'Name'],
  ['length', 'Length'],
  ['kind', 'Kind'],
] as const;
export type Sort = (typeof SORTS)[number][0];

export interface Arrangement {
  readonly sort: Sort;
  /** A role, a kind of file, or a tag after `#`; empty for all. */
  readonly filter: '' | Role | 'video' | 'audio' | 'image' | 'unused' | `#${string}`;
  /** Words that name or tags must have. */
  readonly search: string;
}

/** All tags that are in use, in order. */
export const tagsOf = (footage: readonly FootageView[]): string[] =>
  [...new Set(footage.flatMap((f) => f.tags))].sort();

const collator = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' });

/** The footage that is asked for, in the order that is asked for. */
export function arrange(
  footage: readonly FootageView[],
  { sort, filter, search }: Arrangement,
  used: ReadonlySet<string>,
): FootageView[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const found = footage.filter((view) => {
    const text = `${view.name} ${view.tags.join(' ')} ${view.role}`.toLowerCase();
    const wanted =
      filter === '' ||
      (filter.startsWith('#')
        ? view.tags.includes(filter.slice(1))
        : filter === 'unused'
          ? !used.has(view.id)
          : view.role === filter || view.facts?.kind === filter);
    return wanted && words.every((word) => text.includes(word));
  });
  const by: Record<Sort, (a: FootageView, b: FootageView) => number> = {
    added: () => 0,
    name: (a, b) => collator.compare(a.name, b.name),
    length: (a, b) => (b.facts?.duration ?? 0) - (a.facts?.duration ?? 0),
    kind: (a, b) =>
      collator.compare(
        `${a.facts?.kind} ${a.role} ${a.name}`,
        `${b.facts?.kind} ${b.role} ${b.name}`,
      ),
  };
  return found.sort(by[sort]);
}
