import type { PointerTrack } from '../telemetry/pointer-track';
import type { Page } from './page';
import type { ScreenActivity } from './screen-activity';

/** What was found in the pictures of a screen recording, in its pixels and milliseconds. */
export interface ScreenSight {
  readonly width: number;
  readonly height: number;
  /** The track of a pointer that the recording shows; null where none was found. */
  readonly pointer: PointerTrack | null;
  /** What happened beside the pointer. */
  readonly activities: readonly ScreenActivity[];
  /** What is to be read on the screen, from page to page. */
  readonly pages: readonly Page[];
}

/** The share of a recording in which its pointer was found, 0 to 1, and how many presses. */
export interface PointerFindings {
  readonly found: number;
  readonly confidence: number;
  readonly presses: number;
}

/** How much of a recording a found track tells, for a length in ms. */
export function findingsOf(track: PointerTrack | null, length: number): PointerFindings {
  if (!track) return { found: 0, confidence: 0, presses: 0 };
  const hidden = (track.hidden ?? []).reduce((sum, [from, to]) => sum + to - from, 0);
  const sure = track.samples.reduce((sum, [, , , confidence = 1]) => sum + confidence, 0);
  return {
    found: Math.max(0, 1 - hidden / Math.max(1, length)),
    confidence: sure / Math.max(1, track.samples.length),
    presses: track.events.filter(({ type }) => type === 'down').length,
  };
}
