import type { Project } from '../project/model';
import type { Sources } from '../project/sources';
import { trackOf } from '../project/track-of';
import { findActivities, type Activity } from '../telemetry/activity';
import type { ScreenActivity } from '../vision/screen-activity';

/** Whether anything is known of what is done in a project's recordings. */
export const canPlan = ({ pointers, sights = {} }: Sources): boolean =>
  Object.keys(pointers).length > 0 || Object.keys(sights).length > 0;

/** How sure it is that something is what it looks like, in the picture. */
const IN_PICTURE = 0.7;
/** Smaller things that change, in pixels, are not worth a look where there is no pointer. */
const LEAST = 48;

function fromPicture(activity: ScreenActivity, hasPointer: boolean): Activity | null {
  const { kind, start, end, box } = activity;
  const { x, y, width, height } = box;
  const told = {
    ...{ start, end, left: x, top: y, right: x + width, bottom: y + height },
    confidence: IN_PICTURE,
  };
  switch (kind) {
    case 'typing':
    case 'scroll':
    case 'opening':
      return { kind, ...told };
    case 'change':
      // Without a pointer, what changes is all there is to go by.
      return hasPointer || width < LEAST ? null : { kind: 'opening', ...told };
    case 'page':
    case 'video':
      return null;
  }
}

/**
 * What was done in a screen recording, by its pointer track and by its picture, in order of time.
 * Where the track was recorded it tells all; one that was found tells nothing of keys and wheel,
 * and where there is none the picture alone has to do. Null where neither is known.
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
  if (!sight || (track && (sources.pointers[footageId]?.source ?? 'recorded') === 'recorded'))
    return told;
  const seen = sight.activities.flatMap((one) => fromPicture(one, !!track) ?? []);
  return [...told, ...seen].sort((a, b) => a.start - b.start || a.end - b.end);
}
