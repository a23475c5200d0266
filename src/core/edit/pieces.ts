import { clipEnd, sourceTime } from '../project/clip-time';
import type { Clip } from '../project/model';
import type { Range } from '../time/ranges';
import type { Ticks } from '../time/ticks';

/** The part of a clip before an instant inside of it. What belongs to its end stays behind. */
export const headOf = (clip: Clip, until: Ticks): Clip => ({
  ...clip,
  duration: until - clip.start,
  fadeOut: 0,
  transitionOut: null,
});

/**
 * The part of a clip from an instant inside of it on, as a new clip. What belongs to its start
 * stays behind.
 */
export const tailOf = (clip: Clip, from: Ticks, id: string): Clip => ({
  ...clip,
  id,
  start: from,
  duration: clipEnd(clip) - from,
  source: sourceTime(clip, from),
  fadeIn: 0,
  transitionIn: null,
});

/** The part of a clip that lies in a range; null when there is none. */
export function partOf(clip: Clip, range: Range, id: string): Clip | null {
  const end = clipEnd(clip);
  if (end <= range.start || clip.start >= range.end) return null;
  const from = clip.start < range.start ? tailOf(clip, range.start, id) : { ...clip, id };
  return end > range.end ? headOf(from, range.end) : from;
}

/**
 * What of a clip lies outside a range: nothing, the clip itself, or one or two parts where they
 * stand. The first keeps the id.
 */
export function partsOutside(
  clip: Clip,
  range: Range,
  newId: () => string,
  relink: Relink,
): Clip[] {
  const end = clipEnd(clip);
  if (end <= range.start || clip.start >= range.end) return [clip];
  const parts: Clip[] = [];
  if (clip.start < range.start) parts.push(headOf(clip, range.start));
  if (end > range.end) {
    const tail = tailOf(clip, range.end, parts.length ? newId() : clip.id);
    parts.push(parts.length ? { ...tail, link: relink(clip.link) } : tail);
  }
  return parts;
}

/** Gives the later parts of linked clips a link of their own, the same for all that were linked. */
export type Relink = (link: string | null) => string | null;

export function relinker(newId: () => string): Relink {
  const links = new Map<string, string>();
  return (link) => {
    if (!link) return null;
    if (!links.has(link)) links.set(link, newId());
    return links.get(link)!;
  };
}
