import type { Project } from '../project/model';
import { same } from '../schema/same';

/*
 * Bringing together what two did to one document at the same time, thing by thing. Two that
 * touched the same thing can't be brought together by a machine; that is said, not guessed.
 */

type Thing = { readonly id: string };
type Properties = Readonly<Record<string, unknown>>;

/** Lists of things with an id; the order of some is by time, of the others it is a meaning. */
const BY_TIME = ['framings', 'layouts', 'pointer', 'callouts', 'markers'] as const;
const BY_PLACE = ['lanes', 'steps', 'groups'] as const;
/** Lists that have one entry for each recording. */
const BY_FOOTAGE = ['keys', 'looks', 'corrections'] as const;
/** Objects that are merged property by property. */
const OBJECTS = ['canvas', 'target', 'script', 'theme', 'presenter'] as const;

/** They touched the same thing. */
class Conflict extends Error {}

/** One value that both may have changed. */
function mergeValue<T>(base: T, mine: T, theirs: T): T {
  if (mine === theirs || same(mine, theirs) || same(base, mine)) return theirs;
  if (same(base, theirs)) return mine;
  throw new Conflict();
}

function mergeObject<T extends object>(base: T, mine: T, theirs: T): T {
  const merged: Record<string, unknown> = {};
  for (const key of Object.keys(theirs))
    merged[key] = mergeValue(
      (base as Properties)[key],
      (mine as Properties)[key],
      (theirs as Properties)[key],
    );
  return merged as T;
}

/** What becomes of one thing; undefined is a thing that is not there. */
function mergeThing<T>(
  base: T | undefined,
  mine: T | undefined,
  theirs: T | undefined,
  both: (base: T, mine: T, theirs: T) => T,
): T | undefined {
  if (base !== undefined && mine !== undefined && theirs !== undefined)
    return both(base, mine, theirs);
  return mergeValue(base, mine, theirs);
}

/**
 * Merges two lists of things, in the order of theirs; what only mine has stands behind what it
 * stands behind in mine.
 */
function mergeList<T extends object>(
  base: readonly T[],
  mine: readonly T[],
  theirs: readonly T[],
  nameOf: (thing: T) => string,
  both: (base: T, mine: T, theirs: T) => T,
): T[] {
  const index = (list: readonly T[]) => new Map(list.map((thing) => [nameOf(thing), thing]));
  const [inBase, inMine, inTheirs] = [index(base), index(mine), index(theirs)];
  const merged = theirs.flatMap((thing) => {
    const name = nameOf(thing);
    const kept = mergeThing(inBase.get(name), inMine.get(name), thing, both);
    return kept === undefined ? [] : [kept];
  });
  mine.forEach((thing, i) => {
    const name = nameOf(thing);
    if (inTheirs.has(name)) return;
    if (mergeThing(inBase.get(name), thing, undefined, both) === undefined) return;
    const before = mine.slice(0, i).map(nameOf);
    const at = merged.findLastIndex((m) => before.includes(nameOf(m)));
    merged.splice(at + 1, 0, thing);
  });
  return merged;
}

const sameThing = <T>(base: T, mine: T, theirs: T): T => mergeValue(base, mine, theirs);
const byId = ({ id }: Thing): string => id;
const order = (list: readonly Thing[]): string => list.map(byId).join(' ');

/** Lists whose order is a meaning are not merged where both changed the order. */
function mergePlaced<T extends Thing>(
  base: readonly T[],
  mine: readonly T[],
  theirs: readonly T[],
  both: (base: T, mine: T, theirs: T) => T,
): T[] {
  const common = new Set(
    base.map(byId).filter((id) => [mine, theirs].every((l) => l.some((t) => t.id === id))),
  );
  const rest = (list: readonly T[]) => list.filter(({ id }) => common.has(id));
  const [b, m, t] = [base, mine, theirs].map((list) => order(rest(list))) as [
    string,
    string,
    string,
  ];
  if (b !== m && b !== t && m !== t) throw new Conflict();
  // In the order of whoever changed it.
  return b === t && b !== m
    ? mergeList(base, theirs, mine, byId, (x, y, z) => both(x, z, y))
    : mergeList(base, mine, theirs, byId, both);
}

type Lane = Project['lanes'][number];

function mergeLane(base: Lane, mine: Lane, theirs: Lane): Lane {
  const { clips: baseClips, ...b } = base;
  const { clips: mineClips, ...m } = mine;
  const { clips: theirClips, ...t } = theirs;
  const clips = mergeList(baseClips, mineClips, theirClips, byId, sameThing);
  return { ...mergeObject(b, m, t), clips: clips.sort((x, y) => x.start - y.start) };
}

/**
 * What two states of a document that came of one have in common, with what each of them changed.
 * Whether the result is sound, so that nothing overlaps, is for the check of documents to say.
 *
 * @returns null when both changed the same thing
 */
export function mergeProjects(base: Project, mine: Project, theirs: Project): Project | null {
  try {
    const merged: Record<string, unknown> = { ...theirs };
    for (const key of OBJECTS) merged[key] = mergeObject<object>(base[key], mine[key], theirs[key]);
    for (const key of BY_TIME)
      merged[key] = mergeList<Thing>(base[key], mine[key], theirs[key], byId, sameThing).sort(
        (a, b) => startOf(a) - startOf(b),
      );
    for (const key of BY_FOOTAGE)
      merged[key] = mergeList<{ footageId: string }>(
        base[key],
        mine[key],
        theirs[key],
        ({ footageId }) => footageId,
        mergeObject,
      );
    for (const key of BY_PLACE)
      merged[key] =
        key === 'lanes'
          ? mergePlaced(base.lanes, mine.lanes, theirs.lanes, mergeLane)
          : mergePlaced<Thing>(base[key], mine[key], theirs[key], sameThing);
    return merged as unknown as Project;
  } catch (error) {
    if (error instanceof Conflict) return null;
    throw error;
  }
}

const startOf = (thing: object): number =>
  'start' in thing ? Number(thing.start) : 'time' in thing ? Number(thing.time) : 0;
