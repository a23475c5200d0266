import { Type, type Static, type TProperties } from '@sinclair/typebox';
import { LAYOUT_KINDS } from '../layout/built-in';
import { Layout } from '../layout/model';
import { Color, oneOf, Point } from '../schema/parts';

/** What is recorded of one source; the name of its file in the take. */
export const TRACK_NAMES = ['screen', 'camera', 'voice', 'computer'] as const;
export type TrackName = (typeof TRACK_NAMES)[number];

/** What a take is for. */
export const TAKE_KINDS = ['all', 'voice', 'screen'] as const;
export type TakeKind = (typeof TAKE_KINDS)[number];

/** Why a take ended. */
export const END_REASONS = [
  'stopped',
  'time',
  'sharing ended',
  'unplugged',
  'disk full',
  'server away',
  'crashed',
  'failed',
] as const;
export type EndReason = (typeof END_REASONS)[number];

export const FIGURES = ['arrow', 'box', 'ellipse'] as const;

const Text = Type.String();
const Num = Type.Number();
const line = { width: Num, color: Color };

/** A line that was drawn by hand. */
const DrawnStroke = Type.Object({
  kind: oneOf(['stroke']),
  tool: oneOf(['pen', 'marker']),
  ...line,
});

/** A figure that was drawn from one point to another. */
const DrawnFigure = Type.Object({
  kind: oneOf(['shape']),
  shape: oneOf(FIGURES),
  from: Point,
  to: Point,
  ...line,
});

/** One type of event; what else it has, a later Vistum may know of. */
const event = <const T extends string, P extends TProperties>(
  type: T,
  properties: P,
  description?: string,
) =>
  Type.Object(
    {
      type: Type.Literal(type),
      t: Type.Number({ description: 'Milliseconds of the take’s clock, pauses not counted.' }),
      ...properties,
    },
    { description },
  );

const EVENTS = [
  event('pointer', { x: Num, y: Num }, 'Where the pointer was, in pixels of the recording.'),
  event('down', { button: Num }),
  event('up', { button: Num }),
  event('wheel', { dy: Num }),
  event('key', { key: Text }),
  event('shape', { shape: Text }),
  event('join', {}, 'Recording went on after a pause.'),
  event('mark', { name: Text }),
  event(
    'layout',
    { kind: oneOf(LAYOUT_KINDS), own: Type.Optional(Layout) },
    'A layout was chosen: one of the built-in ones, or one that was saved, which counts.',
  ),
  event('closer', { x: Num, y: Num, magnification: Num }, 'A closer view was asked for here.'),
  event('whole', {}, 'The whole was asked for again.'),
  event('stroke', {
    id: Text,
    drawn: DrawnStroke,
    points: Type.Array(Type.Tuple([Num, Num, Num]), { description: '`[ms, x, y]` each.' }),
  }),
  event('figure', { id: Text, drawn: DrawnFigure }),
  event('words', { id: Text, text: Text, x: Num, y: Num, color: Color, size: Num }),
  event('erase', { ids: Type.Array(Text) }),
  event(
    'clock',
    { track: oneOf(TRACK_NAMES), offset: Num, rate: Num, pieces: Num, dropped: Num },
    'How a track’s clock runs against the take’s: `take = device * rate + offset`, in ' +
      'milliseconds. Repeated while recording; the last one counts.',
  ),
] as const;

export type TakeEvent = Static<(typeof EVENTS)[number]>;

/**
 * One line of a take's data: what was done live, as data. Written while recording, one JSON value a
 * line, so that whatever was written before a crash can be read.
 */
export const TakeEvent = Type.Unsafe<TakeEvent>({
  type: 'object',
  required: ['type'],
  discriminator: { propertyName: 'type' },
  oneOf: [...EVENTS],
});
