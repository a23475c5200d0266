import { Type, type Static } from '@sinclair/typebox';
import { Color, Id, nullable, strict, Time } from '../../schema/parts';

/** A step of the outline: some narration, and what happens on screen meanwhile. */
export const Step = strict({
  id: Id,
  start: {
    ...nullable(Time),
    description:
      'Where it begins on the timeline; null while nothing of it is recorded. No two begin at ' +
      'the same instant.',
  },
  title: Type.String({ maxLength: 500 }),
  narration: Type.String({ maxLength: 2_000_000, description: 'What is said.' }),
  action: Type.String({ maxLength: 200_000, description: 'What happens on screen.' }),
  notes: Type.String({ maxLength: 200_000 }),
});
export type Step = Static<typeof Step>;

/** A named instant. */
export const Marker = strict({
  id: Id,
  time: Time,
  name: Type.String({ maxLength: 200 }),
  color: Color,
});
export type Marker = Static<typeof Marker>;
