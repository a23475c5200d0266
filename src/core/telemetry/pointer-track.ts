import { Type, type Static } from '@sinclair/typebox';

export const POINTER_EVENT_TYPES = ['down', 'up', 'wheel', 'key', 'shape', 'join'] as const;
export type PointerEventType = (typeof POINTER_EVENT_TYPES)[number];

const Side = Type.Number({ minimum: 1 });

const Event = Type.Readonly(
  Type.Object({
    t: Type.Readonly(Type.Number()),
    type: Type.Readonly(Type.Unsafe<PointerEventType>({ enum: [...POINTER_EVENT_TYPES] })),
    button: Type.ReadonlyOptional(
      Type.Integer({
        description: 'Mouse button of a `down` or `up`: 0 main, 1 middle, 2 secondary.',
      }),
    ),
    dy: Type.ReadonlyOptional(
      Type.Number({ description: 'Vertical travel of a `wheel`, in pixels, down positive.' }),
    ),
    key: Type.ReadonlyOptional(
      Type.String({
        description:
          'What a `key` was, as the web platform names it (`a`, `Enter`); with modifiers ' +
          '`Control+s`.',
      }),
    ),
    secret: Type.ReadonlyOptional(
      Type.Boolean({
        description: 'A `key` that was typed into a field for secrets: it is never shown.',
      }),
    ),
    shape: Type.ReadonlyOptional(
      Type.String({ description: 'What the pointer looked like from here on (`arrow`, `text`).' }),
    ),
    confidence: Type.ReadonlyOptional(
      Type.Number({
        minimum: 0,
        maximum: 1,
        description: 'Of a `down` or `up` that was inferred from the picture: how sure it is.',
      }),
    ),
  }),
);
export type PointerEvent = Static<typeof Event>;

export type PointerSample = readonly [ms: number, x: number, y: number, confidence?: number];

/** Where the positions of a track come from. */
export const TRACK_SOURCES = ['recorded', 'found', 'corrected'] as const;
export type TrackSource = (typeof TRACK_SOURCES)[number];

/** How far a pointer that the recording shows reaches from its tip, in pixels. */
export const PointerReach = Type.Object({
  left: Type.Readonly(Type.Number({ minimum: 0 })),
  top: Type.Readonly(Type.Number({ minimum: 0 })),
  right: Type.Readonly(Type.Number({ minimum: 0 })),
  bottom: Type.Readonly(Type.Number({ minimum: 0 })),
});
export type PointerReach = Static<typeof PointerReach>;

/** A stretch in which the pointer is not seen, in milliseconds. */
export type HiddenStretch = readonly [from: number, to: number];

/**
 * A pointer track: where the pointer was on the captured screen, and what was
 * pressed. Times are milliseconds from the first frame of its recording,
 * positions are pixels of that recording. `docs/formats.md` describes the file. Version 2 can say
 * how sure a position is, when the pointer was hidden, and where all of it comes from.
 */
export const PointerTrack = Type.Object({
  format: Type.Readonly(Type.Literal('vistum-pointer')),
  version: Type.Readonly(Type.Union([Type.Literal(1), Type.Literal(2)])),
  width: Type.Readonly(Side),
  height: Type.Readonly(Side),
  inPicture: Type.ReadonlyOptional(
    Type.Boolean({
      description:
        'Whether the recording shows the pointer. When it does not (false), Vistum draws it.',
    }),
  ),
  reach: Type.ReadonlyOptional(PointerReach),
  samples: Type.Readonly(
    Type.Unsafe<readonly PointerSample[]>({
      type: 'array',
      items: { type: 'array', items: { type: 'number' }, minItems: 3, maxItems: 4 },
      description: '`[ms, x, y]` or, in version 2, `[ms, x, y, confidence]`, times ascending.',
    }),
  ),
  hidden: Type.ReadonlyOptional(
    Type.Unsafe<readonly HiddenStretch[]>({
      type: 'array',
      items: { type: 'array', items: { type: 'number' }, minItems: 2, maxItems: 2 },
      description: 'Stretches `[from, to]` in ms in which the pointer is not seen, in order.',
    }),
  ),
  source: Type.ReadonlyOptional(
    Type.Unsafe<TrackSource>({
      enum: [...TRACK_SOURCES],
      description: 'Where the positions come from: recorded, found in the picture, or corrected.',
    }),
  ),
  events: Type.Readonly(
    Type.Unsafe<readonly PointerEvent[]>({
      type: 'array',
      items: Event,
      description: 'Times ascending.',
    }),
  ),
});
export type PointerTrack = Static<typeof PointerTrack>;
