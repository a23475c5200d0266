import type { Framing, Project } from '../project/model';
import { areaOf } from '../project/query';
import type { FootageFacts, Sources } from '../project/sources';
import type { InFootage } from '../scale/rect';
import { limitsAlong, type LimitStretch } from '../scene/limits';
import { overlaps, type Range } from '../time/ranges';

/**
 * A stretch of the timeline in which one screen recording is seen and no framing stays as it is:
 * views are planned within it.
 */
export interface Shot extends Range {
  readonly footage: FootageFacts;
  /** The part of the recording that counts as its whole. */
  readonly area: InFootage;
  /** Whether the recording is seen on after its end, with no framing there to lead on to. */
  readonly goesOn: boolean;
  /** The sharp limits of the layouts that it is seen in, in order. */
  readonly limits: readonly LimitStretch[];
}

/** What is left of a range between others, in order. */
function without(range: Range, others: readonly Range[]): Range[] {
  let left: Range[] = [range];
  for (const other of others)
    left = left.flatMap((one) =>
      overlaps(one, other)
        ? [
            { start: one.start, end: other.start },
            { start: other.end, end: one.end },
          ].filter(({ start, end }) => end > start)
        : [one],
    );
  return left;
}

/**
 * The shots of a project, in order. Cuts within one recording and changes of the layout do not end
 * one; another recording, a gap, a layout without the screen and a framing that stays do.
 *
 * @param stay framings over which nothing is planned
 * @param range only what lies in it, in ticks of the timeline; null for all
 */
export function shotsOf(
  project: Project,
  sources: Sources,
  stay: readonly Framing[],
  range: Range | null,
): Shot[] {
  const seen: { start: number; end: number; limits: LimitStretch[] }[] = [];
  for (const stretch of limitsAlong(project, sources)) {
    const last = seen[seen.length - 1];
    if (last?.end === stretch.start && last.limits[0]!.footageId === stretch.footageId) {
      last.end = stretch.end;
      last.limits.push(stretch);
    } else seen.push({ start: stretch.start, end: stretch.end, limits: [stretch] });
  }
  return seen.flatMap(({ limits, ...all }) => {
    const footage = sources.footage[limits[0]!.footageId]!;
    const start = Math.max(all.start, range?.start ?? 0);
    const end = Math.min(all.end, range?.end ?? all.end);
    if (end <= start) return [];
    return without({ start, end }, stay).map((part) => ({
      ...part,
      goesOn: part.end < all.end && !stay.some((f) => f.start === part.end),
      footage,
      area: areaOf(project, footage),
      limits: limits.filter((l) => overlaps(l, part)),
    }));
  });
}

/**
 * The sharp limit of whatever is seen of a shot within a range, or how far its text is rebuilt: the
 * least of its layouts'.
 */
export function limitWithin({ limits }: Shot, range: Range, rebuilt: boolean): number {
  const touched = limits.filter(({ start, end }) => start <= range.end && range.start <= end);
  const seen = touched.length ? touched : limits;
  return Math.min(...seen.map(({ limit, crisp }) => (rebuilt ? crisp : limit)));
}
