import fc from 'fast-check';
import type { TakeView } from '@/contract/takes';
import { nextPhase, READY, type PhaseEvent, type PhaseState } from './phase';

const take = (id: string) => ({ id }) as TakeView;
const after = (...events: readonly PhaseEvent[]) => events.reduce(nextPhase, READY);
const begun: readonly PhaseEvent[] = [
  { type: 'start', countdown: 3 },
  { type: 'tick' },
  { type: 'begun', takeId: 't' },
];

test('a take goes from its countdown to its review, and back to the stage', () => {
  expect(after(...begun.slice(0, 2))).toMatchObject({ phase: 'countdown', countdown: 2 });
  expect(after(...begun)).toMatchObject({ phase: 'recording', takeId: 't', countdown: 0 });
  const paused = after(...begun, { type: 'pause', ghost: { x: 1, y: 2 } });
  expect(paused).toMatchObject({ phase: 'paused', takeId: 't', ghost: { x: 1, y: 2 } });
  const ended = [{ type: 'resume' }, { type: 'stop' }] as const;
  expect(ended.reduce(nextPhase, paused)).toMatchObject({ phase: 'closing', ghost: null });
  const reviewed = after(...begun, { type: 'stop' }, { type: 'closed', review: take('t') });
  expect(reviewed).toMatchObject({ phase: 'review', review: { id: 't' }, takeId: null });
  expect(nextPhase(reviewed, { type: 'leave' })).toBe(READY);
});

test('a take that the server did not hear the end of leaves the stage free', () => {
  expect(after(...begun, { type: 'stop' }, { type: 'closed', review: null })).toBe(READY);
});

test('what comes late changes nothing', () => {
  const recording = after(...begun);
  for (const event of [
    { type: 'cancel' },
    { type: 'tick' },
    { type: 'begun', takeId: 'other' },
    { type: 'show', take: take('old') },
    { type: 'closed', review: take('old') },
    { type: 'leave' },
    { type: 'start', countdown: 3 },
  ] as const)
    expect(nextPhase(recording, event)).toBe(recording);
  // A countdown that was taken back: its take may begin all the same, and does not count.
  const back = after(begun[0]!, { type: 'cancel' });
  expect(nextPhase(back, { type: 'begun', takeId: 't' })).toBe(back);
});

const anyEvent: fc.Arbitrary<PhaseEvent> = fc.oneof(
  fc.record({ type: fc.constant('start' as const), countdown: fc.nat(5) }),
  fc.constantFrom<PhaseEvent>(
    { type: 'tick' },
    { type: 'cancel' },
    { type: 'begun', takeId: 't' },
    { type: 'pause', ghost: null },
    { type: 'pause', ghost: { x: 3, y: 4 } },
    { type: 'resume' },
    { type: 'stop' },
    { type: 'closed', review: take('t') },
    { type: 'closed', review: null },
    { type: 'show', take: take('s') },
    { type: 'leave' },
  ),
);

const sound = ({ phase, takeId, review, ghost, countdown }: PhaseState): boolean =>
  (takeId !== null) === ['recording', 'paused', 'closing'].includes(phase) &&
  (review !== null) === (phase === 'review') &&
  (ghost === null || phase === 'paused') &&
  (countdown === 0 || phase === 'countdown');

test('whatever comes in whatever order, a phase holds what belongs to it and nothing else', () => {
  fc.assert(
    fc.property(fc.array(anyEvent, { maxLength: 40 }), (events) => {
      let state = READY;
      for (const event of events) {
        state = nextPhase(state, event);
        expect(sound(state)).toBe(true);
      }
    }),
  );
});
