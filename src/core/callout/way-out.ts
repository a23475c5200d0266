import { meet, type Rect, type Size } from '../scale/rect';
import type { Way } from './moved';

/**
 * The shortest way up, down or to a side by which a rectangle comes clear of another and stays within
 * the picture; null where it is clear of it, or there is no such way.
 */
export function wayOut(place: Rect, other: Rect, picture: Size): Way | null {
  if (!meet(place, other)) return null;
  const ways: Way[] = [
    { dx: other.x - place.x - place.width, dy: 0 },
    { dx: other.x + other.width - place.x, dy: 0 },
    { dx: 0, dy: other.y - place.y - place.height },
    { dx: 0, dy: other.y + other.height - place.y },
  ];
  const fits = ({ dx, dy }: Way) =>
    place.x + dx >= 0 &&
    place.y + dy >= 0 &&
    place.x + dx + place.width <= picture.width &&
    place.y + dy + place.height <= picture.height;
  const length = ({ dx, dy }: Way) => Math.abs(dx) + Math.abs(dy);
  return ways.filter(fits).sort((a, b) => length(a) - length(b))[0] ?? null;
}
