import { assertNever } from '../assert-never';
import { countFront } from '../bisect';
import type { PathCorrection } from '../project/parts/correction';
import type { HiddenStretch, PointerEvent, PointerSample, PointerTrack } from './pointer-track';
import { pointerAt } from './sample';

type Of<K extends PathCorrection['kind']> = Extract<PathCorrection, { kind: K }>;

/** A press that was set by hand lasts so long, in ms. */
const PRESS_MS = 90;
/** One that was not takes away presses so near, in ms. */
export const PRESS_NEAR = 250;
/** Just outside of a drawn path the old one goes on, in ms. */
const BESIDE = 0.01;

/** Stretches without a part of time. */
const cutOut = (stretches: readonly HiddenStretch[], from: number, to: number): HiddenStretch[] =>
  stretches.flatMap(([a, b]) =>
    b <= from || a >= to
      ? [[a, b] as const]
      : [[a, from] as const, [to, b] as const].filter(([x, y]) => y > x),
  );

/** What is drawn takes the place of what is there meanwhile, where the pointer is then seen. */
function drawPath(track: PointerTrack, { points }: Of<'path'>): PointerTrack {
  const [from, to] = [points[0]![0], points.at(-1)![0]];
  const drawn = points.map(([t, x, y]): PointerSample => [t, x, y, 1]);
  const end = (t: number): PointerSample => {
    const { x, y } = pointerAt(track, t);
    return [t, x, y];
  };
  const { samples } = track;
  return {
    ...track,
    samples: [
      ...samples.filter(([t]) => t < from - BESIDE),
      ...(samples[0]![0] < from ? [end(from - BESIDE)] : []),
      ...drawn,
      ...(samples.at(-1)![0] > to ? [end(to + BESIDE)] : []),
      ...samples.filter(([t]) => t > to + BESIDE),
    ],
    hidden: cutOut(track.hidden ?? [], from, to),
  };
}

/**
 * How much of a shift a sample takes: all at its time, none from its reach on, smoothly between.
 */
const shareOf = ({ at, reach }: Of<'shift'>, t: number): number => {
  const u = Math.min(1, Math.abs(t - at) / reach);
  return (1 - u * u) ** 2;
};

function shiftPath(track: PointerTrack, shift: Of<'shift'>): PointerTrack {
  const { at, reach, dx, dy } = shift;
  // Where there are few samples the shift has some of its own.
  const own = [-1, -0.75, -0.5, -0.25, 0, 0.25, 0.5, 0.75, 1]
    .map((share) => at + share * reach)
    .filter((t) => t >= 0)
    .map((t): PointerSample => {
      const { x, y } = pointerAt(track, t);
      return [t, x, y];
    });
  const near = ([t]: PointerSample) => Math.abs(t - at) <= reach;
  const moved = [...track.samples.filter(near), ...own]
    .sort((a, b) => a[0] - b[0])
    .map(([t, x, y, confidence]): PointerSample => {
      const share = shareOf(shift, t);
      const sure = t === at ? 1 : confidence;
      const to = [t, x + dx * share, y + dy * share] as const;
      return sure === undefined ? to : [...to, sure];
    });
  return {
    ...track,
    samples: [
      ...track.samples.filter(([t]) => t < at - reach),
      ...moved.filter(([t], i) => i === 0 || t > moved[i - 1]![0]),
      ...track.samples.filter(([t]) => t > at + reach),
    ],
    // Who says where it is says that it is seen.
    hidden: cutOut(track.hidden ?? [], at - reach / 2, at + reach / 2),
  };
}

function hide(track: PointerTrack, { from, to }: Of<'hidden'>): PointerTrack {
  const hidden = [...cutOut(track.hidden ?? [], from, to), [from, to] as const];
  return {
    ...track,
    hidden: hidden.sort((a, b) => a[0] - b[0]),
    // What was pressed with a pointer that is not there was none.
    events: track.events.filter(
      ({ t, type }) => (type !== 'down' && type !== 'up') || t < from || t >= to,
    ),
  };
}

function press(track: PointerTrack, { at, on }: Of<'press'>): PointerTrack {
  const isPress = ({ type }: PointerEvent) => type === 'down' || type === 'up';
  const first = track.events.findIndex(
    ({ t, type }) => type === 'down' && Math.abs(t - at) <= PRESS_NEAR,
  );
  if (!on) {
    if (first < 0) return track;
    const up = track.events.findIndex(({ type }, i) => i > first && type === 'up');
    return { ...track, events: track.events.filter((_, i) => i !== first && i !== up) };
  }
  const [from, to] = [at, at + PRESS_MS];
  const down: PointerEvent[] = [
    { t: from, type: 'down', button: 0 },
    { t: to, type: 'up', button: 0 },
  ];
  const events = track.events.filter((e) => !isPress(e) || e.t < from || e.t > to);
  return { ...track, events: [...events, ...down].sort((a, b) => a.t - b.t) };
}

/**
 * A pointer track with what was mended of it by hand, in the order in which that was done. The
 * track itself stays as it is.
 */
export function correctTrack(track: PointerTrack, made: readonly PathCorrection[]): PointerTrack {
  if (!made.length || !track.samples.length) return track;
  const corrected = made.reduce((so, one) => {
    switch (one.kind) {
      case 'path':
        return drawPath(so, one);
      case 'shift':
        return shiftPath(so, one);
      case 'hidden':
        return hide(so, one);
      case 'press':
        return press(so, one);
      default:
        return assertNever(one);
    }
  }, track);
  return { ...corrected, version: 2, source: 'corrected' };
}

/** A stretch of a track in which it is not known well where the pointer is. */
export interface Unsure {
  readonly from: number;
  readonly to: number;
}

/** Positions below this confidence are worth a look. */
export const SURE = 0.5;
/** Shorter gaps and doubts are none, in ms. */
const LEAST = 300;

/**
 * Stretches in which the pointer was not found, or not surely, in order; in ms of the recording.
 */
export function unsureStretches({ samples, hidden = [] }: PointerTrack): Unsure[] {
  const found: Unsure[] = hidden.map(([from, to]) => ({ from, to }));
  for (let i = 0; i < samples.length; i++) {
    const sure = ([, , , confidence = 1]: PointerSample) => confidence >= SURE;
    if (sure(samples[i]!)) continue;
    const first = i;
    while (i + 1 < samples.length && !sure(samples[i + 1]!)) i++;
    found.push({ from: samples[first]![0], to: samples[i]![0] });
  }
  return found
    .filter(({ from, to }) => to - from >= LEAST)
    .sort((a, b) => a.from - b.from)
    .reduce<Unsure[]>((all, one) => {
      const last = all.at(-1);
      if (last && one.from <= last.to) {
        all[all.length - 1] = { from: last.from, to: Math.max(last.to, one.to) };
        return all;
      }
      return [...all, one];
    }, []);
}

/** The confidence of the position at a time in ms, 0 to 1; 0 while the pointer is hidden. */
export function confidenceAt(track: PointerTrack, ms: number): number {
  const stretch = track.hidden?.findLast(([from]) => from <= ms);
  if (stretch && ms < stretch[1]) return 0;
  const at = countFront(track.samples, ([t]) => t <= ms) - 1;
  return track.samples[Math.max(0, at)]?.[3] ?? 1;
}
