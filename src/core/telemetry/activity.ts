import { pointerAt } from './sample';
import type { PointerTrack } from './pointer-track';

/**
 * Something the person did: when, where on the recording, and what it was. Times in ms, places in
 * footage pixels.
 */
export interface Activity {
  readonly kind: 'press' | 'drag' | 'typing' | 'scroll' | 'dwell';
  readonly start: number;
  readonly end: number;
  /** The pixels it was about. */
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Keys and wheel notches nearer to each other than this belong to one burst. */
const BURST_GAP = 900;
const DRAG_DISTANCE = 24;
const DWELL_TIME = 1500;
const DWELL_RADIUS = 45;

type Box = Pick<Activity, 'left' | 'top' | 'right' | 'bottom'>;

const boxAround = (points: readonly { x: number; y: number }[]): Box => ({
  left: Math.min(...points.map((p) => p.x)),
  top: Math.min(...points.map((p) => p.y)),
  right: Math.max(...points.map((p) => p.x)),
  bottom: Math.max(...points.map((p) => p.y)),
});

function pressesAndDrags(track: PointerTrack): Activity[] {
  const found: Activity[] = [];
  let down: number | null = null;
  for (const event of track.events) {
    if (event.type === 'down') down ??= event.t;
    if (event.type !== 'up' || down === null) continue;
    const path = [pointerAt(track, down), pointerAt(track, event.t)];
    for (const [ms, x, y] of track.samples) if (ms > down && ms < event.t) path.push({ x, y });
    const box = boxAround(path);
    const dragged = Math.hypot(box.right - box.left, box.bottom - box.top) > DRAG_DISTANCE;
    found.push({ kind: dragged ? 'drag' : 'press', start: down, end: event.t, ...box });
    down = null;
  }
  return found;
}

interface Burst {
  readonly start: number;
  readonly end: number;
  readonly count: number;
}

/** Runs of events of a type with no long pause between them. */
function runsOf(track: PointerTrack, type: 'key' | 'wheel'): Burst[] {
  const runs: Burst[] = [];
  for (const { t } of track.events.filter((event) => event.type === type)) {
    const last = runs[runs.length - 1];
    if (last && t - last.end <= BURST_GAP)
      runs[runs.length - 1] = { ...last, end: t, count: last.count + 1 };
    else runs.push({ start: t, end: t, count: 1 });
  }
  return runs;
}

const scrolls = (track: PointerTrack): Activity[] =>
  runsOf(track, 'wheel').map(({ start, end }) => ({
    kind: 'scroll',
    start,
    end,
    ...boxAround([pointerAt(track, start)]),
  }));

/**
 * A single key is a command; several are text, which grows to the right of where the field was
 * pressed.
 */
const typing = (track: PointerTrack): Activity[] =>
  runsOf(track, 'key')
    .filter(({ count }) => count > 1)
    .map(({ start, end, count }) => {
      const at = pointerAt(track, start);
      const reach = Math.min(count * track.height * 0.011, track.width * 0.3);
      return {
        kind: 'typing',
        start,
        end,
        ...boxAround([at, { x: Math.min(at.x + reach, track.width), y: at.y }]),
      };
    });

function dwells(track: PointerTrack, busy: readonly Activity[]): Activity[] {
  const found: Activity[] = [];
  let from = 0;
  for (let i = 1; i <= track.samples.length; i++) {
    const [t0, x0, y0] = track.samples[from]!;
    const here = track.samples[i];
    if (here && Math.hypot(here[1] - x0, here[2] - y0) <= DWELL_RADIUS) continue;
    const end = here ? here[0] : track.samples[i - 1]![0];
    const alone = !busy.some((a) => a.start < end + 600 && a.end > t0 - 600);
    if (end - t0 >= DWELL_TIME && alone)
      found.push({ kind: 'dwell', start: t0, end, ...boxAround([{ x: x0, y: y0 }]) });
    from = i;
  }
  return found;
}

/** Everything worth looking at in a pointer track, in order of time. */
export function findActivities(track: PointerTrack): Activity[] {
  const busy = [...pressesAndDrags(track), ...typing(track), ...scrolls(track)];
  return [...busy, ...dwells(track, busy)].sort((a, b) => a.start - b.start || a.end - b.end);
}
