import { countFront } from '../bisect';
import { rectAround } from '../scale/rect';
import { pointerAt } from './sample';
import type { PointerEvent, PointerTrack } from './pointer-track';

/**
 * Something the person did: when, where on the recording, and what it was. Times in ms, places in
 * footage pixels.
 */
export interface Activity {
  readonly kind: 'press' | 'drag' | 'typing' | 'scroll' | 'opening' | 'dwell';
  readonly start: number;
  readonly end: number;
  /** The pixels it was about. */
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
  /** How sure it is that it happened, 0 to 1; recorded things are. */
  readonly confidence: number;
}

/** Keys and wheel notches nearer to each other than this belong to one burst. */
const BURST_GAP = 900;
const DRAG_DISTANCE = 24;
const DWELL_TIME = 1500;
const DWELL_RADIUS = 45;
/** What is done within so many ms of a rest is why the pointer rests. */
const BESIDE = 600;

type Box = Pick<Activity, 'left' | 'top' | 'right' | 'bottom'>;

/** What was recorded happened. */
const SURE = { confidence: 1 } as const;

function boxAround(points: readonly { x: number; y: number }[]): Box {
  const { x, y, width, height } = rectAround(points);
  return { left: x, top: y, right: x + width, bottom: y + height };
}

function pressesAndDrags(track: PointerTrack): Activity[] {
  const found: Activity[] = [];
  let pressed: PointerEvent | null = null;
  for (const event of track.events) {
    if (event.type === 'down') pressed ??= event;
    if (event.type !== 'up' || pressed === null) continue;
    const { t: from, confidence = 1 } = pressed;
    const path = [pointerAt(track, from), pointerAt(track, event.t)];
    for (let i = countFront(track.samples, ([ms]) => ms <= from); i < track.samples.length; i++) {
      const [ms, x, y] = track.samples[i]!;
      if (ms >= event.t) break;
      path.push({ x, y });
    }
    const box = boxAround(path);
    const dragged = Math.hypot(box.right - box.left, box.bottom - box.top) > DRAG_DISTANCE;
    const kind = dragged ? 'drag' : 'press';
    found.push({ kind, start: from, end: event.t, ...box, confidence });
    pressed = null;
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
    ...SURE,
    ...boxAround([pointerAt(track, start)]),
  }));

/** A field that was pressed so long ago is hardly the one that is typed in, in ms. */
const FIELD_TIME = 20_000;

/** Where what is typed from an instant on appears: where was pressed last, if it was of late. */
function fieldAt(track: PointerTrack, presses: readonly Activity[], ms: number) {
  const press = presses[countFront(presses, ({ start }) => start <= ms) - 1];
  if (!press || ms - press.end > FIELD_TIME) return pointerAt(track, ms);
  return { x: press.right, y: press.bottom };
}

/**
 * A single key is a command; several are text, which grows to the right of where the field was
 * pressed, wherever the pointer is meanwhile.
 */
const typing = (track: PointerTrack, presses: readonly Activity[]): Activity[] =>
  runsOf(track, 'key')
    .filter(({ count }) => count > 1)
    .map(({ start, end, count }) => {
      const at = fieldAt(track, presses, start);
      const reach = Math.min(count * track.height * 0.011, track.width * 0.3);
      return {
        kind: 'typing',
        start,
        end,
        ...SURE,
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
    from = i;
    // Most are no rests; only those are looked at closer.
    if (end - t0 < DWELL_TIME) continue;
    if (busy.some((a) => a.start < end + BESIDE && a.end > t0 - BESIDE)) continue;
    found.push({ kind: 'dwell', start: t0, end, ...boxAround([{ x: x0, y: y0 }]), ...SURE });
  }
  return found;
}

/** Everything worth looking at in a pointer track, in order of time. */
export function findActivities(track: PointerTrack): Activity[] {
  const presses = pressesAndDrags(track);
  const busy = [...presses, ...typing(track, presses), ...scrolls(track)];
  return [...busy, ...dwells(track, busy)].sort((a, b) => a.start - b.start || a.end - b.end);
}
