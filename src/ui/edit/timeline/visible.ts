import { clipEnd } from '@/core/project/clip-time';
import type { Lane } from '@/core/project/model';
import { lastStarted } from '@/core/project/query';
import type { Ticks } from '@/core/time/ticks';
import { inSight, toPixels, toTime, type Sight } from './geometry';

interface Run {
  readonly first: number;
  readonly last: number;
  readonly start: Ticks;
  readonly end: Ticks;
}

/**
 * What is drawn on a lane: a clip by itself, a closed group as one block, or a run of clips too
 * narrow to be worked on.
 */
export type Piece =
  | { readonly kind: 'clip'; readonly index: number }
  | ({ readonly kind: 'group' } & Run)
  | ({ readonly kind: 'crumbs' } & Run);

/**
 * Clips narrower than this can't be worked on and are only drawn; where very many are in sight,
 * only wider ones stand by themselves.
 */
const NARROW_PX = 9;
const NARROW_IN_A_CROWD_PX = 24;
const CROWD = 60;

/** Whether something of so many pixels is drawn by itself where so many are in sight. */
const standsAlone = (pixels: number, many: number): boolean =>
  pixels >= (many > CROWD ? NARROW_IN_A_CROWD_PX : NARROW_PX);

/** The pieces of a lane that are in sight, in order. */
export function piecesInSight(
  lane: Lane,
  sight: Sight,
  scale: number,
  openGroup: string | null,
): Piece[] {
  const { clips } = lane;
  const pieces: Piece[] = [];
  const until = toTime(sight.to, scale);
  const wide = (from: Ticks, to: Ticks) => toPixels(to - from, scale);
  const from = Math.max(0, lastStarted(lane, Math.max(0, toTime(sight.from, scale))));
  const many = lastStarted(lane, until) - from;
  for (let i = from; i < clips.length;) {
    const clip = clips[i]!;
    if (clip.start > until) break;
    let last = i;
    if (clip.group && clip.group !== openGroup) {
      while (clips[last + 1]?.group === clip.group) last++;
      pieces.push({ kind: 'group', first: i, last, start: clip.start, end: clipEnd(clips[last]!) });
    } else if (standsAlone(wide(clip.start, clipEnd(clip)), many)) {
      pieces.push({ kind: 'clip', index: i });
    } else {
      const joins = (next: (typeof clips)[number] | undefined) =>
        !!next &&
        next.start <= until &&
        (!next.group || next.group === openGroup) &&
        !standsAlone(wide(next.start, clipEnd(next)), many);
      while (joins(clips[last + 1])) last++;
      pieces.push({
        kind: 'crumbs',
        first: i,
        last,
        start: clip.start,
        end: clipEnd(clips[last]!),
      });
    }
    i = last + 1;
  }
  return pieces;
}

interface Span {
  readonly start: Ticks;
  readonly end: Ticks;
}

/**
 * The spans that are in sight: those that can be worked on, and, where there are very many, those
 * that are only drawn.
 */
export function spansInSight<S extends Span>(
  spans: readonly S[],
  sight: Sight,
  scale: number,
): { readonly alone: readonly S[]; readonly crumbs: readonly S[] } {
  const seen = spans.filter(({ start, end }) => inSight(sight, start, end, scale));
  if (seen.length <= CROWD) return { alone: seen, crumbs: [] };
  const alone = ({ start, end }: S) => standsAlone(toPixels(end - start, scale), seen.length);
  return { alone: seen.filter(alone), crumbs: seen.filter((span) => !alone(span)) };
}

/** Of spans that lie over each other only what shows by so many pixels is drawn. */
const SHOWS_PX = 4;

/**
 * Leaves out spans that lie so closely over others of their row that nothing of them shows.
 *
 * @param spans in order of their start
 * @param isCrowded whether a span lies in a row in which spans lie over each other
 */
export function withoutBuried<S extends Span>(
  spans: readonly S[],
  scale: number,
  isCrowded: (span: S) => boolean,
): readonly S[] {
  const least = toTime(SHOWS_PX, scale);
  let kept: S | null = null;
  return spans.filter((span) => {
    if (!isCrowded(span)) return true;
    const shows = !kept || span.start - kept.start >= least || span.end - kept.end >= least;
    if (shows) kept = span;
    return shows;
  });
}
