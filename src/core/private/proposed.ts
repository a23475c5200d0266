import { UNPOSED } from '../callout/keyframes';
import { kindOf } from '../callout/kinds';
import type { Callout, Project } from '../project/model';
import { padded, type Rect } from '../scale/rect';
import { frameDuration } from '../time/ticks';
import type { PrivateFound, PrivateStretch } from './log';
import type { OpenPlace } from './shown';

/** A cover reaches so much further than what was read, of its height: letters have tails. */
const ROUND = 0.35;
/** Blurs are so strong, of the height of what they hide, and so strong at least. */
const BLUR = { share: 1.2, least: 24, most: 80 };

/** What a cover of what was read at a place hides. */
export const coverRect = (rect: Rect): Rect => padded(rect, Math.max(4, rect.height * ROUND));

/** A cover that is proposed, and what it is for. */
export interface ProposedCover {
  readonly callout: Callout;
  /** Where it was read, in pixels of the recording. */
  readonly marked: Rect;
  /** All that was read of it. */
  readonly stretches: readonly PrivateStretch[];
}

/**
 * Covers for private data that lies bare: one for each thing and clip, where and when it is seen
 * first. That they go along with it has to be asked for apart.
 */
export function coversFor(
  project: Project,
  footageId: string,
  found: readonly PrivateFound[],
  places: readonly OpenPlace[],
  newId: () => string,
): ProposedCover[] {
  const frame = frameDuration(project.canvas.frameRate);
  const firsts = new Map<string, OpenPlace>();
  for (const place of places) {
    const key = `${place.found} ${place.clipId}`;
    const before = firsts.get(key);
    if (!before || place.start < before.start) firsts.set(key, place);
  }
  return [...firsts.values()].map((place) => {
    const { rect } = place.stretch;
    const { kind, stretches } = found[place.found]!;
    const strength = Math.round(
      Math.min(BLUR.most, Math.max(BLUR.least, rect.height * BLUR.share)),
    );
    const made = kindOf({ kind: 'cover' }).create!({
      ...{ at: rect, size: rect, frame: project.canvas },
    });
    const callout = {
      ...made,
      ...{ id: newId(), anchor: { to: 'footage', footageId }, ...UNPOSED },
      start: Math.floor(place.start / frame) * frame,
      end: Math.ceil(place.end / frame) * frame,
      rect: coverRect(rect),
      // Of a key nothing may be left to guess.
      way: kind === 'email' || kind === 'phone' || kind === 'word' ? 'blur' : 'solid',
      strength,
    } as Callout;
    return { callout, marked: rect, stretches };
  });
}
