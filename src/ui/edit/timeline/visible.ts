import { clipEnd } from '@/core/project/clip-time';
import type { Lane } from '@/core/project/model';
import { lastStarted } from '@/core/project/query';
import type { Ticks } from '@/core/time/ticks';
import { toPixels, toTime, type Sight } from './geometry';

/** What is drawn on a lane: a clip by itself, or clips as one block: those of a closed group, or those too small to be seen apart. */
export type Piece =
  | { readonly kind: 'clip'; readonly index: number }
  | { readonly kind: 'group' | 'crumbs'; readonly first: number; readonly last: number; readonly start: Ticks; readonly end: Ticks };

/** Clips narrower than this are drawn together, in blocks of at least the second width. */
const NARROW_PX = 4;
const BLOCK_PX = 8;
const BREAK_PX = 2;

/** The pieces of a lane that are in sight, in order. */
export function piecesInSight(lane: Lane, sight: Sight, scale: number, openGroup: string | null): Piece[] {
  const { clips } = lane;
  const pieces: Piece[] = [];
  const until = toTime(sight.to, scale);
  const wide = (from: Ticks, to: Ticks) => toPixels(to - from, scale);
  for (let i = Math.max(0, lastStarted(lane, Math.max(0, toTime(sight.from, scale)))); i < clips.length;) {
    const clip = clips[i]!;
    if (clip.start > until) break;
    let last = i;
    if (clip.group && clip.group !== openGroup) {
      while (clips[last + 1]?.group === clip.group) last++;
      pieces.push({ kind: 'group', first: i, last, start: clip.start, end: clipEnd(clips[last]!) });
    } else if (wide(clip.start, clipEnd(clip)) >= NARROW_PX) {
      pieces.push({ kind: 'clip', index: i });
    } else {
      const joins = (next: (typeof clips)[number] | undefined) =>
        !!next &&
        (!next.group || next.group === openGroup) &&
        wide(next.start, clipEnd(next)) < NARROW_PX &&
        wide(clipEnd(clips[last]!), next.start) < BREAK_PX &&
        wide(clip.start, clipEnd(clips[last]!)) < BLOCK_PX;
      while (joins(clips[last + 1])) last++;
      pieces.push({ kind: 'crumbs', first: i, last, start: clip.start, end: clipEnd(clips[last]!) });
    }
    i = last + 1;
  }
  return pieces;
}
