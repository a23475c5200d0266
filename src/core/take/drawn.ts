import { strokePaths } from '../callout/paths';
import type { TakeEvent } from './take';

/** A drawing as it looks at an instant of a take, in the recording's pixels. */
export type Drawn = { readonly id: string; readonly color: string } & (
  | {
      readonly kind: 'lines';
      readonly paths: readonly (readonly { x: number; y: number }[])[];
      readonly closed: boolean;
      readonly width: number;
      readonly see: boolean;
    }
  | {
      readonly kind: 'words';
      readonly text: string;
      readonly x: number;
      readonly y: number;
      readonly size: number;
    }
);

/**
 * What of the live drawings is seen at a take time.
 *
 * @param ms take time
 * @param hold seconds that drawings stay; null until they are erased
 */
export function drawnAt(events: readonly TakeEvent[], ms: number, hold: number | null): Drawn[] {
  const gone = new Set<string>();
  for (const event of events)
    if (event.type === 'erase' && event.t <= ms) for (const id of event.ids) gone.add(id);
  return events.flatMap((event): Drawn[] => {
    if (event.t > ms || !('id' in event) || gone.has(event.id)) return [];
    const drawn = event.type === 'stroke' ? (event.points.at(-1)?.[0] ?? 0) : 0;
    if (hold !== null && ms > event.t + drawn + hold * 1000) return [];
    if (event.type === 'words')
      return [
        {
          kind: 'words',
          id: event.id,
          text: event.text,
          x: event.x,
          y: event.y,
          size: event.size,
          color: event.color,
        },
      ];
    const base = { id: event.id, start: 0, end: 0, footageId: '' };
    const paths =
      event.type === 'stroke'
        ? strokePaths(
            { ...base, ...event.drawn, points: event.points.map(([t, x, y]) => [t, x, y]) },
            ms - event.t,
          )
        : strokePaths({ ...base, ...event.drawn }, ms - event.t);
    return [
      {
        kind: 'lines',
        id: event.id,
        paths,
        closed: event.type === 'figure' && event.drawn.shape !== 'arrow',
        width: event.drawn.width,
        color: event.drawn.color,
        see: event.type === 'stroke' && event.drawn.tool === 'marker',
      },
    ];
  });
}

/** Where the pointer was at a take time; null when it was not followed until then. */
export function pointerDuring(
  events: readonly TakeEvent[],
  ms: number,
): { x: number; y: number } | null {
  const last = events.findLast((e) => e.type === 'pointer' && e.t <= ms);
  return last?.type === 'pointer' ? { x: last.x, y: last.y } : null;
}
