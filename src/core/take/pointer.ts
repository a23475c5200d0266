import { assertNever } from '../assert-never';
import type { PointerEvent, PointerSample, PointerTrack } from '../telemetry/pointer-track';
import type { TakeEvent } from './take';

/**
 * The pointer track of a take's screen recording, out of the take's data.
 *
 * @param size of the recording in pixels
 * @param offset take time in ms of the recording's first frame
 * @returns null when the pointer was not followed
 */
export function pointerTrackOf(
  events: readonly TakeEvent[],
  size: { width: number; height: number },
  offset: number,
): PointerTrack | null {
  const samples: PointerSample[] = [];
  const found: PointerEvent[] = [];
  for (const event of events) {
    const t = event.t - offset;
    switch (event.type) {
      case 'pointer':
        // Before the first frame only the last place counts, as the one it begins with.
        if (t < 0) samples.length = 0;
        samples.push([Math.max(0, t), event.x, event.y]);
        break;
      case 'down':
      case 'up':
        if (t >= 0) found.push({ t, type: event.type, button: event.button });
        break;
      case 'wheel':
        if (t >= 0) found.push({ t, type: 'wheel', dy: event.dy });
        break;
      case 'key':
        if (t >= 0) found.push({ t, type: 'key', key: event.key });
        break;
      case 'shape':
        found.push({ t: Math.max(0, t), type: 'shape', shape: event.shape });
        break;
      case 'join':
        if (t >= 0) found.push({ t, type: 'join' });
        break;
      case 'mark':
      case 'layout':
      case 'closer':
      case 'whole':
      case 'stroke':
      case 'figure':
      case 'words':
      case 'erase':
      case 'clock':
        // Not the pointer's.
        break;
      default:
        assertNever(event);
    }
  }
  if (!samples.length) return null;
  return {
    format: 'vistum-pointer',
    version: 1,
    ...size,
    inPicture: false,
    samples,
    events: found,
  };
}
