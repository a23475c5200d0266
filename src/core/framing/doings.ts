import type { Project } from '../project/model';
import type { Sources } from '../project/sources';
import { trackOf } from '../project/track-of';
import { isWithin, type Rect } from '../scale/rect';
import { findActivities, type Activity } from '../telemetry/activity';
import type { PointerTrack } from '../telemetry/pointer-track';
import { isHiddenAt, pointerAt } from '../telemetry/sample';
import type { ScreenActivity } from '../vision/screen-activity';

/** Whether anything is known of what is done in a project's recordings. */
export const canPlan = ({ pointers, sights = {} }: Sources): boolean =>
  Object.keys(pointers).length > 0 || Object.keys(sights).length > 0;

/** How sure it is that something is what it looks like, in the picture. */
const IN_PICTURE = 0.7;
/** Smaller things that change, in pixels, are not worth a look where there is no pointer. */
const LEAST = 48;

/** What opens so soon after a press is what the press brought about, in ms. */
const BROUGHT = 350;
/** Who presses into a field types there within so many ms, in its line. */
const INTO = 2000;
/** Pictures tell of a press somewhat late. */
const LATE = 60;

/** Whether something that opened was brought about by a press, which says where to look itself. */
const isBrought = (start: number, told: readonly Activity[]): boolean =>
  told.some(
    (one) => one.kind === 'press' && one.start > start - BROUGHT && one.start < start + LATE,
  );

/** How sure it is that something is typed: as sure as of a press that went into its line. */
const sureOfTyping = ({ start, box }: ScreenActivity, told: readonly Activity[]): number =>
  told
    .filter(({ kind, end }) => kind === 'press' && end <= start + LATE && end > start - INTO)
    .filter(({ top }) => top > box.y - box.height && top < box.y + 2 * box.height)
    .reduce((sure, { confidence }) => Math.max(sure, confidence), IN_PICTURE);

/**
 * What was scrolled, as a recorded track would have it: where the pointer was, if it was over it; a
 * whole page fits into no view.
 */
function scrolledAt(track: PointerTrack, ms: number, box: Rect): Rect {
  const { x, y } = pointerAt(track, ms);
  const spot = { x, y, width: 0, height: 0 };
  return !isHiddenAt(track, ms) && isWithin(spot, box) ? spot : box;
}

/**
 * @param track the pointer's, where it is known
 * @param told what that tells
 */
function fromPicture(
  one: ScreenActivity,
  track: PointerTrack | null,
  told: readonly Activity[],
): Activity | null {
  const { kind, start, end, box } = one;
  const at = ({ x, y, width, height }: Rect) => ({
    ...{ start, end, left: x, top: y, right: x + width, bottom: y + height },
    confidence: IN_PICTURE,
  });
  switch (kind) {
    case 'typing':
      return { kind, ...at(box), confidence: sureOfTyping(one, told) };
    case 'scroll':
      return { kind, ...at(track ? scrolledAt(track, start, box) : box) };
    case 'opening':
      return isBrought(start, told) ? null : { kind, ...at(box) };
    case 'change':
      // Without a pointer, what changes is all there is to go by.
      return track || box.width < LEAST ? null : { kind: 'opening', ...at(box) };
    case 'page':
    case 'video':
      return null;
  }
}

/** What was typed as a recorded track tells it, where the picture shows it to appear. */
function typedWhereSeen(told: Activity, seen: readonly ScreenActivity[]): Activity {
  if (told.kind !== 'typing') return told;
  const common = ({ start, end }: ScreenActivity) =>
    Math.min(end, told.end + LATE) - Math.max(start, told.start);
  const best = seen
    .filter(({ kind }) => kind === 'typing')
    .reduce<ScreenActivity | null>((a, b) => (a && common(a) >= common(b) ? a : b), null);
  if (!best || common(best) < (told.end - told.start) / 2) return told;
  const { x, y, width, height } = best.box;
  return { ...told, left: x, top: y, right: x + width, bottom: y + height };
}

/**
 * What was done in a screen recording, by its pointer track and by its picture, in order of time.
 * Where the track was recorded it tells all but where typed text appears; one that was found tells
 * nothing of keys and wheel, and where there is none the picture alone has to do. Null where neither
 * is known.
 */
export function doingsOf(
  project: Pick<Project, 'corrections'>,
  sources: Sources,
  footageId: string,
): Activity[] | null {
  const track = trackOf(project, sources, footageId);
  const sight = sources.sights?.[footageId];
  if (!track && !sight) return null;
  const told = track ? findActivities(track) : [];
  if (!sight) return told;
  if (track && (sources.pointers[footageId]?.source ?? 'recorded') === 'recorded')
    return told.map((one) => typedWhereSeen(one, sight.activities));
  const seen = sight.activities.flatMap((one) => fromPicture(one, track, told) ?? []);
  return [...told, ...seen].sort((a, b) => a.start - b.start || a.end - b.end);
}
