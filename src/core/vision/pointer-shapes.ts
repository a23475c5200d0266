import { turned } from '../scale/rect';
import type { PointerShape } from '../telemetry/sample';
import type { Polygon } from './polygon';

/** What a pointer is, as far as its outline tells. */
export type PointerForm = PointerShape | 'other';

/** An outline that pointers have: polygons in units of its own, the y axis down. */
export interface ShapeDrawing {
  readonly form: PointerForm;
  /** What is in any of them belongs to it. */
  readonly polygons: readonly Polygon[];
  /** What it points with. */
  readonly hotspot: { readonly x: number; readonly y: number };
}

const box = (x: number, y: number, width: number, height: number): number[] => [
  ...[x, y, x + width, y, x + width, y + height, x, y + height],
];

const turnedBy = (polygon: Polygon, degrees: number): number[] =>
  polygon.map((_, i) => {
    const { x, y } = turned(polygon[i & ~1]!, polygon[i | 1]!, degrees);
    return i % 2 ? y : x;
  });

const mirrored = (polygon: Polygon): number[] =>
  polygon.map((value, i) => (i % 2 ? value : -value));

const disc = (x: number, y: number, radius: number): number[] =>
  Array.from({ length: 48 }, (_, i) => {
    const angle = ((i >> 1) / 24) * 2 * Math.PI;
    return i % 2 ? y + radius * Math.sin(angle) : x + radius * Math.cos(angle);
  });

const CENTRE = { x: 0, y: 0 };
const TIP = { x: 0, y: 0 };

const TAILED = [0, 0, 0, 17, 4, 13.4, 6.6, 19.4, 9.4, 18.2, 6.9, 12.4, 12, 12.2];
const PLAIN = [0, 0, 0, 17, 4.6, 12.5, 12, 12.2];
const DART = [0, 0, 5, 15.5, 7.6, 7.6, 15.5, 5];
const STOUT = [0, 0, 0, 13, 2, 16, 6, 17, 8, 20, 12, 20, 11, 11];
/** A hand whose thumb comes down from the side, and one with a square palm. */
const HANDS: readonly (readonly [finger: number, ...polygon: number[]])[] = [
  [10.5, 8, 0, 13, 0, 13, 7, 24, 11, 24, 22, 22, 30, 11, 30, 0, 16, 2, 13.5, 8, 17],
  [4, 2, 0, 6, 0, 6, 5, 14, 7, 16, 9, 16, 16, 2, 16, 0, 13, 0, 7, 2, 7],
];

/** A double arrow along the x axis, with so thick a shaft. */
const double = (shaft: number, half: number, head: number): number[] => [
  ...[-half, 0, -half + head, -head, -half + head, -shaft, half - head, -shaft],
  ...[half - head, -head, half, 0, half - head, head, half - head, shaft],
  ...[-half + head, shaft, -half + head, head],
];

const DOUBLES: readonly Polygon[] = [double(1.4, 10, 5), double(2.4, 9, 5)];
const DIRECTIONS = [
  ['across', 0],
  ['falling', 45],
  ['down', 90],
  ['rising', -45],
] as const;

/**
 * The outlines that pointers usually have, drawn by us: with their rims, as simple as they can be
 * and still be told from each other.
 */
export const POINTER_DRAWINGS: readonly ShapeDrawing[] = [
  { form: 'arrow', polygons: [TAILED], hotspot: TIP },
  { form: 'arrow', polygons: [PLAIN], hotspot: TIP },
  { form: 'arrow', polygons: [DART], hotspot: TIP },
  { form: 'arrow', polygons: [STOUT], hotspot: TIP },
  // At work: an arrow with something round beside it.
  { form: 'arrow', polygons: [TAILED, disc(15, 13, 5)], hotspot: TIP },
  { form: 'arrow', polygons: [TAILED, disc(14, 15, 8)], hotspot: TIP },
  { form: 'arrow', polygons: [mirrored(TAILED)], hotspot: TIP },
  { form: 'arrow', polygons: [mirrored(PLAIN)], hotspot: TIP },
  ...[
    [1, 3.5, 1],
    [1.6, 4.6, 1.6],
    [2, 3.4, 2.6],
  ].map(([bar, foot, thick]) => ({
    form: 'text' as const,
    polygons: [
      box(-bar!, -9, 2 * bar!, 18),
      box(-foot!, -9, 2 * foot!, 2 * thick!),
      box(-foot!, 9 - 2 * thick!, 2 * foot!, 2 * thick!),
    ],
    hotspot: CENTRE,
  })),
  ...HANDS.map(([finger, ...polygon]) => ({
    form: 'hand' as const,
    polygons: [polygon],
    hotspot: { x: finger, y: 0 },
  })),
  ...DIRECTIONS.flatMap(([form, angle]) =>
    DOUBLES.map((arrow) => ({ form, polygons: [turnedBy(arrow, angle)], hotspot: CENTRE })),
  ),
  // A bar between two arrows, as edges of columns have.
  ...(['across', 'down'] as const).map((form, i) => ({
    form,
    polygons: [double(1.4, 9, 4), box(-1.8, -8, 3.6, 16)].map((polygon) =>
      turnedBy(polygon, i * 90),
    ),
    hotspot: CENTRE,
  })),
  ...[1, 2.4].map((arm) => ({
    form: 'other' as const,
    polygons: [box(-9, -arm, 18, 2 * arm), box(-arm, -9, 2 * arm, 18)],
    hotspot: CENTRE,
  })),
  // In all four directions.
  {
    form: 'other',
    polygons: [double(1.4, 10, 4), turnedBy(double(1.4, 10, 4), 90)],
    hotspot: CENTRE,
  },
  { form: 'busy', polygons: [disc(0, 0, 8)], hotspot: CENTRE },
  { form: 'busy', polygons: [[-6, -9, 6, -9, 1, 0, 6, 9, -6, 9, -1, 0]], hotspot: CENTRE },
];
