import { PLAIN_LINES } from '../callout/kinds/two-points';
import { PLAIN_TEXT } from '../callout/kinds/text';
import { UNPOSED } from '../callout/keyframes';
import { assertNever } from '../assert-never';
import type { CalloutBase } from '../callout/kind';
import { kindOf } from '../callout/kinds';
import { PLAIN_ARROW } from '../callout/kinds/arrow';
import { appearanceAt, USUAL_MOTION } from '../callout/motion';
import type { Mark } from '../frame/mark';
import type { Callout } from '../project/model';
import type { Size } from '../scale/rect';
import { secondsToTicks } from '../time/ticks';
import type { TakeEvent } from './take';

type DrawnEvent = Extract<TakeEvent, { type: 'stroke' | 'figure' | 'words' }>;
type OmitBase<C> = C extends unknown ? Omit<C, keyof CalloutBase> : never;

const INK = '#ffffff';

/** The callout that a live drawing becomes, all but its times and what it stands on. */
export function drawnCallout(event: DrawnEvent): OmitBase<Callout> {
  switch (event.type) {
    case 'stroke':
      return {
        ...event.drawn,
        points: event.points.map(([t, x, y]) => [t, x, y]),
        ...USUAL_MOTION,
      };
    case 'figure': {
      const { shape, from, to, width, color } = event.drawn;
      const drawn = { from: { ...from }, to: { ...to }, width, color, ...PLAIN_LINES };
      return shape === 'arrow'
        ? { kind: shape, ...drawn, ...PLAIN_ARROW }
        : { kind: shape, ...drawn, ...USUAL_MOTION };
    }
    case 'words':
      return {
        kind: 'text',
        text: event.text,
        tip: { x: event.x, y: event.y },
        offset: { dx: 0, dy: 0 },
        size: event.size,
        fill: event.color,
        ink: INK,
        arrow: false,
        ...{ ...PLAIN_TEXT, ...USUAL_MOTION },
      };
    default:
      return assertNever(event);
  }
}

/** A drawing as it looks at an instant of a take, in the recording's pixels. */
export interface Drawn {
  readonly id: string;
  readonly mark: Mark;
  readonly opacity: number;
}

/**
 * What of a live drawing is seen so long after it was begun: what its callout will show then.
 *
 * @param ms milliseconds after its start
 * @param size of the recording, in pixels
 */
export function drawnMarks(event: DrawnEvent, ms: number, size: Size): Drawn[] {
  const base: CalloutBase = {
    id: event.id,
    start: 0,
    end: Infinity,
    anchor: { to: 'frame' },
    ...UNPOSED,
  };
  const item: Callout = { ...drawnCallout(event), ...base };
  const layers = kindOf(item).marks(item, {
    ms,
    presence: 1,
    drawn: 'pace' in item ? appearanceAt(item, secondsToTicks(ms / 1000)).drawn : 1,
    number: 0,
    output: size,
    ratio: 1,
    scale: 1,
    grown: 0,
    turn: 0,
    tilt: 0,
    size: 1,
    magnify: null,
    stage: { x: 0, y: 0, ...size },
    toOutput: (point) => point,
  });
  return layers.flatMap((layer) =>
    layer.kind === 'drawing' ? [{ id: event.id, mark: layer.mark, opacity: layer.opacity }] : [],
  );
}

/**
 * The live drawings that are there at a take time: begun, neither erased nor gone by themselves.
 */
function liveDrawings(events: readonly TakeEvent[], ms: number, hold: number | null): DrawnEvent[] {
  const gone = new Set<string>();
  for (const event of events)
    if (event.type === 'erase' && event.t <= ms) for (const id of event.ids) gone.add(id);
  return events.flatMap((event): DrawnEvent[] => {
    if (event.t > ms || !('id' in event) || gone.has(event.id)) return [];
    const drawn = event.type === 'stroke' ? (event.points.at(-1)?.[0] ?? 0) : 0;
    return hold !== null && ms > event.t + drawn + hold * 1000 ? [] : [event];
  });
}

/** Ids of the live drawings that are there at a take time; `hold` as for `drawnAt`. */
export const liveIds = (events: readonly TakeEvent[], ms: number, hold: number | null): string[] =>
  liveDrawings(events, ms, hold).map(({ id }) => id);

/**
 * What of the live drawings is seen at a take time.
 *
 * @param ms take time
 * @param hold seconds that drawings stay; null until they are erased
 * @param size of the recording, in pixels
 */
export const drawnAt = (
  events: readonly TakeEvent[],
  ms: number,
  hold: number | null,
  size: Size,
): Drawn[] =>
  liveDrawings(events, ms, hold).flatMap((event) => drawnMarks(event, ms - event.t, size));

/** Where the pointer was at a take time; null when it was not followed until then. */
export function pointerDuring(
  events: readonly TakeEvent[],
  ms: number,
): { x: number; y: number } | null {
  const last = events.findLast((e) => e.type === 'pointer' && e.t <= ms);
  return last?.type === 'pointer' ? { x: last.x, y: last.y } : null;
}
