import { clipEnd } from '../project/clip-time';
import type { Clip, Lane, LaneKind, Project } from '../project/model';
import { usedFootage } from '../project/query';
import type { Sources } from '../project/sources';
import type { Range } from '../time/ranges';
import type { Ticks } from '../time/ticks';
import { EditError } from './error';
import { insertLane } from './lanes';
import { orderLanes } from './lookup';
import { partOf } from './pieces';
import { clearRange, lanesOf } from './range';
import { rippleInsert } from './ripple';

/**
 * What was copied: clips by lane, in time from the start of the copied stretch. Plain data, so that
 * another project can take it.
 */
export interface Snippet {
  readonly format: 'vistum-clips';
  readonly version: 3;
  readonly length: Ticks;
  readonly lanes: readonly {
    readonly id: string;
    readonly kind: LaneKind;
    readonly name: string;
    readonly clips: readonly Clip[];
  }[];
}

function snippet(lanes: readonly { lane: Lane; clips: readonly Clip[] }[], range: Range): Snippet {
  return {
    format: 'vistum-clips',
    version: 3,
    length: range.end - range.start,
    lanes: lanes
      .filter((l) => l.clips.length)
      .map(({ lane: { id, kind, name }, clips }) => ({
        id,
        kind,
        name,
        clips: clips.map((clip) => ({ ...clip, start: clip.start - range.start })),
      })),
  };
}

/** Copies whole clips. */
export function copyClips(project: Project, ids: readonly string[]): Snippet {
  const wanted = new Set(ids);
  const lanes = project.lanes.map((lane) => ({
    lane,
    clips: lane.clips.filter((c) => wanted.has(c.id)),
  }));
  const all = lanes.flatMap((l) => l.clips);
  if (!all.length) throw new EditError('Select the clips to copy, or set an In and an Out point.');
  return snippet(lanes, {
    start: Math.min(...all.map((c) => c.start)),
    end: Math.max(...all.map(clipEnd)),
  });
}

/** Copies what stands in a range on the chosen lanes, or on all unlocked ones. */
export function copyRange(
  project: Project,
  range: Range,
  chosen: readonly string[] | null,
): Snippet {
  const lanes = lanesOf(project, chosen).map((lane) => ({
    lane,
    clips: lane.clips.flatMap((c) => partOf(c, range, c.id) ?? []),
  }));
  if (!lanes.some((l) => l.clips.length))
    throw new EditError('Nothing stands in the range on these lanes.');
  return snippet(lanes, range);
}

/** Footage that a snippet needs. */
export const footageOf = (copied: Snippet): string[] => [...usedFootage(copied.lanes)];

/** The snippet with other footage in the place of its own, as a copy into another project has. */
export const withFootage = (copied: Snippet, names: Readonly<Record<string, string>>): Snippet => ({
  ...copied,
  lanes: copied.lanes.map((l) => ({
    ...l,
    clips: l.clips.map((c) => ({ ...c, footageId: names[c.footageId] ?? c.footageId })),
  })),
});

export type PasteMode = 'overwrite' | 'insert';

/**
 * Pastes at an instant: onto the lanes that it came from, or, when it came from one lane, onto
 * another of its kind; onto a new one where there is none. Linked parts are linked to each other
 * anew.
 *
 * @param laneId for what comes from a single lane; `front` puts a new lane before all others, so
 * that it covers them
 * @returns ids of the new clips
 * @throws EditError for a locked lane, another kind of lane, or footage that is not there
 */
export function pasteSnippet(
  project: Project,
  sources: Sources,
  copied: Snippet,
  at: Ticks,
  mode: PasteMode,
  laneId: string | null,
  newId: () => string,
): string[] {
  const missing = footageOf(copied).filter((id) => !sources.footage[id]);
  if (missing.length)
    throw new EditError(
      `${missing.length === 1 ? 'A recording' : `${missing.length} recordings`} of what was copied ${missing.length === 1 ? 'is' : 'are'} no longer in Footage. Bring it back there, then paste again.`,
    );
  const lanes = copied.lanes.map((from) => ({
    from,
    lane: targetLane(project, copied, from, laneId, newId),
  }));
  if (mode === 'insert') rippleInsert(project, at, copied.length, newId);
  const renamed = new Map<string, string>();
  const fresh = (id: string | null) => {
    if (!id) return null;
    if (!renamed.has(id)) renamed.set(id, newId());
    return renamed.get(id)!;
  };
  // A link or group of which only one part was copied holds nothing together.
  const parts = copied.lanes.flatMap((l) => l.clips);
  const single = (key: 'link' | 'group', id: string | null) =>
    parts.filter((c) => c[key] === id).length < 2;
  const ids: string[] = [];
  for (const { from, lane } of lanes) {
    clearRange([lane], { start: at, end: at + copied.length }, newId);
    for (const clip of from.clips) {
      const id = newId();
      ids.push(id);
      const group = single('group', clip.group) ? null : fresh(clip.group);
      if (group && !project.groups.some((g) => g.id === group))
        project.groups.push({ id: group, name: 'Group' });
      lane.clips.push({
        ...clip,
        id,
        start: clip.start + at,
        link: single('link', clip.link) ? null : fresh(clip.link),
        group,
      });
    }
  }
  orderLanes(lanes.map((l) => l.lane));
  return ids;
}

function targetLane(
  project: Project,
  copied: Snippet,
  from: Snippet['lanes'][number],
  laneId: string | null,
  newId: () => string,
): Lane {
  if (laneId === 'front') return insertLane(project, from.kind, 0, newId);
  const chosen =
    copied.lanes.length === 1 && laneId ? project.lanes.find((l) => l.id === laneId) : undefined;
  const same = project.lanes.find((l) => l.id === from.id && l.kind === from.kind);
  const lane =
    chosen ??
    same ??
    project.lanes.find((l) => l.kind === from.kind && !l.locked) ??
    insertLane(project, from.kind, project.lanes.length, newId);
  if (lane.locked)
    throw new EditError(
      `The lane ${lane.name} is locked. Unlock it first, or choose another lane to paste onto.`,
    );
  if (lane.kind !== from.kind)
    throw new EditError(`What was copied from ${from.name} can’t stand on the lane ${lane.name}.`);
  return lane;
}
