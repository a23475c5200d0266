import { Type, type Static } from '@sinclair/typebox';
import { FootageRect, Id, nullable, strict, Time } from '../../schema/parts';

/** A framing can be turned by so many degrees either way. */
export const MOST_TURN = 45;

/** One camera move over a screen recording: a view that is held, with a ramp in and a ramp out. */
export const Framing = strict({
  id: Id,
  start: { ...Time, description: 'The view starts to move here.' },
  end: {
    ...Time,
    description:
      'The view is back at the whole footage here, or goes over to the framing that starts here.',
  },
  rampIn: Time,
  rampOut: Time,
  footageId: Id,
  rect: FootageRect,
  endRect: {
    ...nullable(FootageRect),
    description:
      'Where the view has slowly gone by the end of its rest; null for one that stays as it is.',
  },
  turn: Type.Optional({
    ...Type.Number({ minimum: -MOST_TURN, maximum: MOST_TURN }),
    description:
      'Degrees by which what is seen is turned, clockwise; 0 where left out. At the edges of the ' +
      'recording it is less, so that nothing beyond them is seen.',
  }),
  pinned: { ...Type.Boolean(), description: 'Planning again leaves it alone.' },
  reason: Type.String({
    maxLength: 500,
    description: 'Why the planner made it; empty when a person did.',
  }),
});
export type Framing = Static<typeof Framing>;
