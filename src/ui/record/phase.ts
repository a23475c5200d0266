import type { TakeView } from '@/contract/takes';
import { assertNever } from '@/core/assert-never';

interface Spot {
  readonly x: number;
  readonly y: number;
}

/** What each phase of recording holds; what it does not hold is null, or zero. */
interface Holds {
  /** Seconds that are left of the countdown. */
  readonly countdown: number;
  readonly takeId: string | null;
  readonly review: TakeView | null;
  /** Where the pointer was when the take was paused, in the recording's pixels. */
  readonly ghost: Spot | null;
}
const NOTHING: Holds = { countdown: 0, takeId: null, review: null, ghost: null };

/** Where recording stands. */
export type PhaseState =
  | (Holds & { readonly phase: 'ready' })
  | (Holds & { readonly phase: 'countdown' })
  | (Holds & { readonly phase: 'recording'; readonly takeId: string })
  | (Holds & { readonly phase: 'paused'; readonly takeId: string })
  | (Holds & { readonly phase: 'closing'; readonly takeId: string })
  | (Holds & { readonly phase: 'review'; readonly review: TakeView });

/** What moves recording from one phase to another. */
export type PhaseEvent =
  | { readonly type: 'start'; readonly countdown: number }
  | { readonly type: 'tick' }
  /** The take could not begin, or was taken back before it did. */
  | { readonly type: 'cancel' }
  | { readonly type: 'begun'; readonly takeId: string }
  | { readonly type: 'pause'; readonly ghost: Spot | null }
  | { readonly type: 'resume' }
  | { readonly type: 'stop' }
  /** The take is whole on the server; without it, it waits in this browser. */
  | { readonly type: 'closed'; readonly review: TakeView | null }
  /** A take is looked at. */
  | { readonly type: 'show'; readonly take: TakeView }
  /** The take that is looked at was decided on, or put off. */
  | { readonly type: 'leave' };

export const READY: PhaseState = { ...NOTHING, phase: 'ready' };

const review = (take: TakeView): PhaseState => ({ ...NOTHING, phase: 'review', review: take });

/**
 * The phase after an event. An event that does not belong to a phase changes nothing, so that what
 * comes late, such as the end of a countdown that was taken back, does no harm.
 */
export function nextPhase(state: PhaseState, event: PhaseEvent): PhaseState {
  const { phase } = state;
  switch (event.type) {
    case 'start':
      return phase === 'ready'
        ? { ...NOTHING, phase: 'countdown', countdown: event.countdown }
        : state;
    case 'tick':
      return phase === 'countdown'
        ? { ...state, countdown: Math.max(0, state.countdown - 1) }
        : state;
    case 'cancel':
      return phase === 'countdown' ? READY : state;
    case 'begun':
      return phase === 'countdown'
        ? { ...NOTHING, phase: 'recording', takeId: event.takeId }
        : state;
    case 'pause':
      return phase === 'recording' ? { ...state, phase: 'paused', ghost: event.ghost } : state;
    case 'resume':
      return phase === 'paused' ? { ...state, phase: 'recording', ghost: null } : state;
    case 'stop':
      return phase === 'recording' || phase === 'paused'
        ? { ...state, phase: 'closing', ghost: null }
        : state;
    case 'closed':
      if (phase !== 'closing') return state;
      return event.review ? review(event.review) : READY;
    case 'show':
      return phase === 'ready' || phase === 'review' ? review(event.take) : state;
    case 'leave':
      return phase === 'review' ? READY : state;
    default:
      return assertNever(event);
  }
}
