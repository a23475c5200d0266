import { Type, type Static } from '@sinclair/typebox';
import { Id, strict } from '../../schema/parts';

const Ms = Type.Number({ minimum: 0, maximum: 1e9, description: 'Milliseconds of the recording.' });
const Pixel = Type.Number({ minimum: -100_000, maximum: 100_000 });

/** One thing that was mended of a pointer's path. Later ones count where they meet. */
export const PathCorrection = Type.Union([
  strict({
    kind: Type.Literal('path'),
    points: Type.Array(Type.Tuple([Ms, Pixel, Pixel]), {
      minItems: 1,
      maxItems: 20_000,
      description:
        '`[ms, x, y]` in pixels of the recording, times ascending; straight lines between them ' +
        'take the place of what was found from the first to the last.',
    }),
  }),
  strict({
    kind: Type.Literal('shift'),
    at: Ms,
    dx: Pixel,
    dy: Pixel,
    reach: Type.Number({
      exclusiveMinimum: 0,
      maximum: 600_000,
      description: 'The path is moved by all of it at its time, and by less up to so many ms away.',
    }),
  }),
  strict({ kind: Type.Literal('hidden'), from: Ms, to: Ms }),
  strict({
    kind: Type.Literal('press'),
    at: Ms,
    on: { ...Type.Boolean(), description: 'Whether something was pressed then, or was not.' },
  }),
]);
export type PathCorrection = Static<typeof PathCorrection>;

/** What was mended by hand of the pointer of one recording; what was found stays beside it. */
export const PointerCorrections = strict({
  footageId: Id,
  made: Type.Array(PathCorrection, { maxItems: 5000 }),
});
export type PointerCorrections = Static<typeof PointerCorrections>;
