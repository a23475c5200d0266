import { UNPOSED } from '../callout/keyframes';
import { assertNever } from '../assert-never';
import { DEFAULT_MARKER_COLOR } from '../project/create';
import { builtInOf, LAYOUTS } from '../layout/built-in';
import type { Callout, Framing, LayoutSpan, Marker } from '../project/model';
import { keepInside } from '../framing/path';
import { wholeView } from '../scale/sharpness';
import type { InFootage, Size } from '../scale/rect';
import { secondsToTicks, snapToFrame, type FrameRate, type Ticks } from '../time/ticks';
import { drawnCallout } from './drawn';
import type { TakeEvent } from './take';

/** What was done live, as it lands in the project; times are timeline ticks. */
export interface LiveData {
  readonly callouts: readonly Callout[];
  readonly framings: readonly Framing[];
  readonly layouts: readonly LayoutSpan[];
  readonly markers: readonly Marker[];
}

export interface LivePlace {
  /** The screen recording; null when there is none, and then only layouts and markers are made. */
  readonly footageId: string | null;
  /** What counts as the whole of the recording, in its pixels. */
  readonly area: InFootage;
  readonly frame: Size;
  readonly rate: FrameRate;
  /** Timeline time of take time `from` ms. */
  readonly start: Ticks;
  readonly from: number;
  /** End of the take on the timeline. */
  readonly end: Ticks;
  /** Seconds that a drawing stays; null until it is erased or the take ends. */
  readonly hold: number | null;
}

const RAMP = secondsToTicks(0.8);

/** Turns what was done live into callouts, framings, layouts and markers on the timeline. */
export function liveData(
  events: readonly TakeEvent[],
  place: LivePlace,
  newId: () => string,
): LiveData {
  const { rate, start, end, from, footageId } = place;
  const at = (ms: number): Ticks =>
    Math.min(end, Math.max(start, start + snapToFrame(secondsToTicks((ms - from) / 1000), rate)));
  const erased = new Map<string, number>();
  for (const event of events)
    if (event.type === 'erase')
      for (const id of event.ids) if (!erased.has(id)) erased.set(id, event.t);
  const until = (id: string, t: number, drawnMs = 0): Ticks => {
    const gone = erased.get(id);
    const held = place.hold === null ? end : at(t + drawnMs + place.hold * 1000);
    return Math.min(gone === undefined ? end : at(gone), held);
  };
  const callouts: Callout[] = [];
  const markers: Marker[] = [];
  const layouts: LayoutSpan[] = [];
  let layout: LayoutSpan | null = null;
  for (const event of events) {
    const when = at(event.t);
    switch (event.type) {
      case 'mark':
      case 'join':
        if (!markers.some((m) => m.time === when))
          markers.push({
            id: newId(),
            time: when,
            name: event.type === 'mark' ? event.name : 'Pause',
            color: DEFAULT_MARKER_COLOR,
          });
        break;
      case 'layout':
        if (layout) layout.end = when;
        layout = {
          ...{ id: newId(), start: when, end },
          layout: structuredClone(event.own ?? LAYOUTS[event.kind]),
        };
        layouts.push(layout);
        break;
      case 'stroke':
      case 'figure':
      case 'words': {
        if (!footageId) break;
        const drawnMs = event.type === 'stroke' ? (event.points.at(-1)?.[0] ?? 0) : 0;
        callouts.push({
          ...drawnCallout(event),
          id: newId(),
          start: when,
          end: until(event.id, event.t, drawnMs),
          anchor: { to: 'footage', footageId },
          ...UNPOSED,
        });
        break;
      }
      case 'pointer':
      case 'down':
      case 'up':
      case 'wheel':
      case 'key':
      case 'shape':
        // The pointer has a track of its own.
        break;
      case 'closer':
      case 'whole':
      case 'erase':
      case 'clock':
        // Read together with others of their kind.
        break;
      default:
        assertNever(event);
    }
  }
  return {
    callouts: callouts.filter((c) => c.end > c.start),
    framings: footageId ? closerViews(events, { ...place, footageId }, at, newId) : [],
    // The usual one holds everywhere else and needs no span.
    layouts: layouts.filter((l) => l.end > l.start && builtInOf(l.layout) !== 'corner'),
    markers,
  };
}

/** Each closer view holds until the next one or until the whole is asked for. */
function closerViews(
  events: readonly TakeEvent[],
  place: LivePlace & { readonly footageId: string },
  at: (ms: number) => Ticks,
  newId: () => string,
): Framing[] {
  const whole = wholeView(place.area, place.frame);
  const asked = events.filter((e) => e.type === 'closer' || e.type === 'whole');
  return asked.flatMap((event, i) => {
    if (event.type !== 'closer') return [];
    const begin = at(event.t);
    const end = asked[i + 1] ? at(asked[i + 1]!.t) : place.end;
    if (end <= begin) return [];
    const width = whole.width / Math.max(1, event.magnification);
    const height = whole.height / Math.max(1, event.magnification);
    const ramp = Math.min(RAMP, Math.floor((end - begin) / 2));
    return [
      {
        id: newId(),
        start: begin,
        end,
        rampIn: ramp,
        rampOut: ramp,
        footageId: place.footageId,
        rect: {
          ...keepInside({ x: event.x - width / 2, y: event.y - height / 2, width, height }, whole),
        },
        endRect: null,
        pinned: true,
        reason: 'asked for while recording',
      },
    ];
  });
}
