import type { PointerTrack } from '@/core/telemetry/pointer-track';

/** A press that was inferred is right within so many ms of one that was made. */
const PRESS = 200;

const downsOf = ({ events }: Pick<PointerTrack, 'events'>): number[] =>
  events.filter(({ type }) => type === 'down').map(({ t }) => t);

/** How many presses were made and said, how many of those are right, and how many of these found. */
export function judgePresses(truth: PointerTrack, told: PointerTrack | null) {
  const [made, said] = [downsOf(truth), told ? downsOf(told) : []];
  const near = (a: number, others: readonly number[]) =>
    others.some((b) => Math.abs(a - b) <= PRESS);
  return {
    ...{ made: made.length, said: said.length },
    right: said.filter((t) => near(t, made)).length,
    found: made.filter((t) => near(t, said)).length,
  };
}
