import { same } from '../schema/same';
import { assertNever } from '../assert-never';
import type { Project } from '../project/model';

/*
 * What an edit changed, as small plain data that can be saved. An edit of a long project moves
 * thousands of things by the same time; that is one entry here, not thousands.
 */

type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };

/** A member of one of the document's lists. */
interface Item {
  readonly id: string;
  readonly [key: string]: Json;
}

/** Steps that make one list of the other, from its front to its end. */
type ListStep =
  /** So many stay as they are. */
  | number
  /** So many stay but for their times, which all move by as much. */
  | readonly ['move', count: number, by: number]
  | readonly ['drop', count: number]
  | readonly ['add', ...items: Item[]]
  /** As many are replaced. */
  | readonly ['put', ...items: Item[]]
  /** One lane is changed in some properties and in its clips. */
  | readonly ['lane', changed: { readonly [key: string]: Json }, clips: readonly ListStep[]];

/** For each changed property of a document: its new value, or the steps to its new list. */
export type ProjectPatch = {
  readonly [key: string]: { readonly value: Json } | { readonly steps: readonly ListStep[] };
};

const LISTS = new Set([
  'lanes',
  'framings',
  'layouts',
  'pointer',
  'callouts',
  'steps',
  'markers',
  'groups',
]);
/** The other properties of a document, which are replaced as a whole. */
const VALUES = new Set([
  'canvas',
  'target',
  'script',
  'theme',
  'presenter',
  'keys',
  'looks',
  'corrections',
]);
const LANE_PROPERTIES = new Set(['id', 'kind', 'name', 'gain', 'off', 'solo', 'locked', 'height']);
const TIMES = ['start', 'end', 'time'] as const;

/** An item with its times moved. */
function moved(item: Item, by: number): Item {
  const copy: Record<string, Json> = { ...item };
  for (const key of TIMES) if (typeof copy[key] === 'number') copy[key] += by;
  return copy as unknown as Item;
}

/** How far an item was moved, if nothing else of it changed. */
function moveOf(a: Item, b: Item): number | null {
  const key = TIMES.find((k) => typeof a[k] === 'number' && typeof b[k] === 'number');
  if (!key) return null;
  const by = (b[key] as number) - (a[key] as number);
  if (by === 0) return null;
  for (const k of TIMES)
    if (a[k] !== b[k] && (typeof a[k] !== 'number' || b[k] !== a[k] + by)) return null;
  const keys = Object.keys(a);
  if (keys.length !== Object.keys(b).length) return null;
  for (const k of keys) {
    if ((TIMES as readonly string[]).includes(k)) {
      if (typeof a[k] === 'number' && b[k] !== a[k] + by) return null;
    } else if (!same(a[k], b[k])) return null;
  }
  return by;
}

/** Collects steps, joining what can be one. */
class Steps {
  readonly list: ListStep[] = [];

  keep(): void {
    const last = this.list.length - 1;
    const step = this.list[last];
    if (typeof step === 'number') this.list[last] = step + 1;
    else this.list.push(1);
  }

  move(by: number): void {
    const last = this.list.length - 1;
    const step = this.list[last];
    if (Array.isArray(step) && step[0] === 'move' && step[2] === by)
      this.list[last] = ['move', (step[1] as number) + 1, by];
    else this.list.push(['move', 1, by]);
  }

  drop(): void {
    const last = this.list.length - 1;
    const step = this.list[last];
    if (Array.isArray(step) && step[0] === 'drop')
      this.list[last] = ['drop', (step[1] as number) + 1];
    else this.list.push(['drop', 1]);
  }

  item(kind: 'add' | 'put', item: Item): void {
    const last = this.list.length - 1;
    const step = this.list[last];
    if (Array.isArray(step) && step[0] === kind) (step as unknown as Json[]).push(item);
    else this.list.push([kind, item]);
  }
}

/**
 * Steps from one list to the other; also the other list with every unchanged item taken from the
 * first.
 */
function diffList(
  a: readonly Item[],
  b: readonly Item[],
): { steps: ListStep[]; result: readonly Item[] } {
  const steps = new Steps();
  const result: Item[] = [];
  const inA = new Map(a.map((item, i) => [item.id, i]));
  const inB = new Set(b.map((item) => item.id));
  let i = 0;
  let changed = a.length !== b.length;
  for (const item of b) {
    // What is gone, or comes again only later, is dropped on the way.
    const at = inA.get(item.id);
    if (at !== undefined && at >= i) {
      while (i < a.length && a[i]!.id !== item.id && !inB.has(a[i]!.id)) {
        steps.drop();
        i++;
        changed = true;
      }
    }
    const old = a[i];
    if (!old || old.id !== item.id) {
      // Not here in the first list: it is new, or stood elsewhere.
      if (at !== undefined && at > i) {
        while (a[i]!.id !== item.id) {
          steps.drop();
          i++;
        }
      } else {
        steps.item('add', item);
        result.push(item);
        changed = true;
        continue;
      }
    }
    const before = a[i++]!;
    if (same(before, item)) {
      steps.keep();
      result.push(before);
      continue;
    }
    changed = true;
    const by = moveOf(before, item);
    if (by !== null) {
      steps.move(by);
      result.push(item);
    } else if (Array.isArray(before.clips) && Array.isArray(item.clips)) {
      const clips = diffList(before.clips as unknown as Item[], item.clips as unknown as Item[]);
      const properties: Record<string, Json> = {};
      for (const key of Object.keys(item))
        if (key !== 'clips' && !same(before[key], item[key])) properties[key] = item[key]!;
      steps.list.push(['lane', properties, clips.steps]);
      result.push({ ...item, clips: clips.result as unknown as Json });
    } else {
      steps.item('put', item);
      result.push(item);
    }
  }
  for (; i < a.length; i++) steps.drop();
  return { steps: steps.list, result: changed ? result : a };
}

/** Says that a patch was made for another document. */
export class PatchError extends Error {}

function applySteps(list: readonly Item[], steps: readonly ListStep[]): readonly Item[] {
  const result: Item[] = [];
  let i = 0;
  const next = (): Item => {
    if (i >= list.length) throw new PatchError('The change was made for another document.');
    return list[i++]!;
  };
  for (const step of steps) {
    if (typeof step === 'number') {
      for (let n = 0; n < step; n++) result.push(next());
      continue;
    }
    switch (step[0]) {
      case 'move':
        for (let n = 0; n < step[1]; n++) result.push(moved(next(), step[2]));
        break;
      case 'drop':
        for (let n = 0; n < step[1]; n++) next();
        break;
      case 'add':
        result.push(...(step.slice(1) as unknown as Item[]));
        break;
      case 'put':
        for (let n = 1; n < step.length; n++) next();
        result.push(...(step.slice(1) as unknown as Item[]));
        break;
      case 'lane': {
        const lane = next();
        if (!Array.isArray(lane.clips))
          throw new PatchError('The change was made for another document.');
        const clips = applySteps(lane.clips as unknown as Item[], step[2]);
        result.push({ ...lane, ...step[1], clips: clips as unknown as Json });
        break;
      }
      default:
        assertNever(step);
    }
  }
  if (i !== list.length) throw new PatchError('The change was made for another document.');
  return result;
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isCount = (value: unknown): value is number =>
  Number.isSafeInteger(value) && Number(value) > 0;
const isItem = (value: unknown): boolean => isObject(value) && typeof value.id === 'string';

/** Whether a value from outside has the form of steps from one list to another. */
function areSteps(value: unknown, nested = false): boolean {
  if (!Array.isArray(value)) return false;
  return value.every((step: unknown) => {
    if (!Array.isArray(step)) return isCount(step);
    const [kind, ...rest] = step as unknown[];
    switch (kind) {
      case 'move':
        return rest.length === 2 && isCount(rest[0]) && Number.isSafeInteger(rest[1]);
      case 'drop':
        return rest.length === 1 && isCount(rest[0]);
      case 'add':
      case 'put':
        return rest.length > 0 && rest.every(isItem);
      case 'lane':
        return !nested && rest.length === 2 && isLaneChange(rest[0]) && areSteps(rest[1], true);
      default:
        return false;
    }
  });
}

const isLaneChange = (value: unknown): boolean =>
  isObject(value) && Object.keys(value).every((key) => LANE_PROPERTIES.has(key));

/**
 * Whether a value from outside has the form of a patch, and names nothing but properties that a
 * document has.
 */
export function isPatch(value: unknown): value is ProjectPatch {
  if (!isObject(value)) return false;
  return Object.entries(value).every(([key, change]) => {
    if (!isObject(change) || Object.keys(change).length !== 1) return false;
    if (LISTS.has(key)) return areSteps(change.steps);
    return VALUES.has(key) && 'value' in change;
  });
}

type Properties = Record<string, unknown>;

/**
 * The patch that makes the second document of the first, and the second document with everything
 * that did not change taken from the first, so that comparing by reference tells what is new.
 */
export function diffProjects(a: Project, b: Project): { patch: ProjectPatch; result: Project } {
  const patch: Record<string, ProjectPatch[string]> = {};
  const result: Properties = {};
  for (const key of Object.keys(b)) {
    const before = (a as unknown as Properties)[key];
    const after = (b as unknown as Properties)[key];
    if (LISTS.has(key)) {
      const lists = diffList(before as Item[], after as Item[]);
      result[key] = lists.result;
      if (lists.result !== before) patch[key] = { steps: lists.steps };
    } else if (same(before, after)) result[key] = before;
    else {
      result[key] = after;
      patch[key] = { value: after as Json };
    }
  }
  return { patch, result: Object.keys(patch).length ? (result as unknown as Project) : a };
}

/**
 * A document after a patch that was made for it.
 *
 * @throws PatchError when it was made for another one
 */
export function patchProject(project: Project, patch: ProjectPatch): Project {
  const result: Properties = { ...(project as unknown as Properties) };
  for (const [key, change] of Object.entries(patch))
    result[key] =
      'steps' in change ? applySteps(result[key] as Item[], change.steps) : change.value;
  return result as unknown as Project;
}
