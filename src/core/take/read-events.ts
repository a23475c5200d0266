import { LAYOUT_KINDS } from '../layout/built-in';
import { FIGURES, TRACK_NAMES, type TakeEvent } from './take';

type Check = (value: unknown) => boolean;

const isObject = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const number: Check = Number.isFinite;
const text: Check = (value) => typeof value === 'string';
const color: Check = (value) => typeof value === 'string' && /^#[0-9a-f]{6}$/i.test(value);
const oneOf =
  (list: readonly string[]): Check =>
  (value) =>
    typeof value === 'string' && list.includes(value);
const listOf =
  (check: Check, length?: number): Check =>
  (value) =>
    Array.isArray(value) && (length === undefined || value.length === length) && value.every(check);
const having =
  (checks: Readonly<Record<string, Check>>): Check =>
  (value) =>
    isObject(value) && Object.entries(checks).every(([key, check]) => check(value[key]));

const spot = having({ x: number, y: number });
const line = { width: number, color };

/** For each type of event, what its properties must be. */
const EVENTS: Readonly<Record<TakeEvent['type'], Check>> = {
  pointer: spot,
  down: having({ button: number }),
  up: having({ button: number }),
  wheel: having({ dy: number }),
  key: having({ key: text }),
  shape: having({ shape: text }),
  join: isObject,
  mark: having({ name: text }),
  layout: having({ kind: oneOf(LAYOUT_KINDS) }),
  closer: having({ x: number, y: number, magnification: number }),
  whole: isObject,
  stroke: having({
    id: text,
    drawn: having({ kind: oneOf(['stroke']), tool: oneOf(['pen', 'marker']), ...line }),
    points: listOf(listOf(number, 3)),
  }),
  figure: having({
    id: text,
    drawn: having({ kind: oneOf(['shape']), shape: oneOf(FIGURES), from: spot, to: spot, ...line }),
  }),
  words: having({ id: text, text, x: number, y: number, color, size: number }),
  erase: having({ ids: listOf(text) }),
  clock: having({
    ...{ track: oneOf(TRACK_NAMES), offset: number, rate: number, pieces: number },
    dropped: number,
  }),
};

function isTakeEvent(value: unknown): value is TakeEvent {
  if (!isObject(value) || !Number.isFinite(value.t)) return false;
  const { type } = value;
  return (
    typeof type === 'string' &&
    Object.hasOwn(EVENTS, type) &&
    EVENTS[type as TakeEvent['type']](value)
  );
}

/**
 * Reads a take's data; a last line that was cut off, and lines that make no sense, are passed over.
 */
export function readTakeEvents(data: string): TakeEvent[] {
  return data.split('\n').flatMap((one) => {
    if (!one) return [];
    try {
      const event: unknown = JSON.parse(one);
      return isTakeEvent(event) ? [event] : [];
    } catch {
      return [];
    }
  });
}
