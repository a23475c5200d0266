import type { PointerTrack } from '../telemetry/pointer-track';
import type { ChangedPlace } from './changed-places';
import type { Page } from './page';
import type { ScreenActivity } from './screen-activity';

/** What was found in the pictures of a screen recording, in its pixels and milliseconds. */
export interface ScreenSight {
  readonly width: number;
  readonly height: number;
  /** How long the recording is. */
  readonly length: number;
  /** The track of a pointer that the recording shows; null where none was found. */
  readonly pointer: PointerTrack | null;
  /** What happened beside the pointer. */
  readonly activities: readonly ScreenActivity[];
  /** Where the picture changed when; not known of some recordings, and of those with too much. */
  readonly changes?: readonly ChangedPlace[] | null;
  /** What is to be read on the screen, from page to page. */
  readonly pages: readonly Page[];
}

/** A few numbers on what a screen recording shows, for lists. */
export interface SightSummary {
  /** The share of the recording in which its pointer was found, 0 to 1, and how sure it is there. */
  readonly pointer: number;
  readonly confidence: number;
  /** How many presses were inferred. */
  readonly presses: number;
  readonly activities: number;
  readonly pages: number;
}

/** A few numbers on what a screen recording shows. */
export function summaryOf({ pointer, activities, pages, length }: ScreenSight): SightSummary {
  const counts = { activities: activities.length, pages: pages.length };
  if (!pointer) return { pointer: 0, confidence: 0, presses: 0, ...counts };
  const hidden = (pointer.hidden ?? []).reduce((sum, [from, to]) => sum + to - from, 0);
  const sure = pointer.samples.reduce((sum, [, , , confidence = 1]) => sum + confidence, 0);
  return {
    pointer: Math.max(0, 1 - hidden / Math.max(1, length)),
    confidence: sure / Math.max(1, pointer.samples.length),
    presses: pointer.events.filter(({ type }) => type === 'down').length,
    ...counts,
  };
}
