import type { TObject } from '@sinclair/typebox';
import type { LinesMark } from '../../frame/mark';
import type { Layer } from '../../frame/plan';
import { Point } from '../../schema/parts';
import { colorSetting, numberSetting } from '../../schema/setting';
import {
  boundsOf,
  linesSchema,
  drawn,
  shifted,
  type CalloutKind,
  type CalloutScene,
  type Handle,
  type Move,
  type Spot,
} from '../kind';
import { USUAL_MOTION } from '../motion';
import { partOfPaths } from '../part-of-path';

/*
 * What kinds have in common that two points say.
 */

/** How wide the lines of a drawing are. */
export const LineWidth = numberSetting({
  label: 'Width',
  description: 'In pixels of what it stands on.',
  unit: 'px',
  min: 1,
  max: 400,
  step: 1,
  fallback: 8,
  usual: [2, 120],
});

/** A light outline parts lines from what is dark. */
const EDGE = '#ffffff';

/** The properties that all of them have. */
export const twoPointProperties = {
  from: Point,
  to: Point,
  width: LineWidth,
  color: colorSetting('Colour', '#c2412d'),
  outline: numberSetting({
    label: 'Outline',
    description: 'Width of an outline on both sides, in pixels of what it stands on.',
    unit: 'px',
    min: 0,
    max: 100,
    step: 0.5,
    fallback: 0,
    usual: [0, 16],
  }),
  edge: colorSetting('Outline colour', EDGE),
};

/** The settings of lines that count as they are now. */
export const linesSettings =
  (schema: TObject) =>
  ({ outline }: { readonly outline: number }): string[] =>
    Object.keys(schema.properties).filter((name) => name !== 'edge' || outline > 0);

/** Lines without an outline. */
export const PLAIN_LINES = { outline: 0, edge: EDGE } as const;

interface TwoPoints {
  readonly from: Point;
  readonly to: Point;
}

/** The share of the frame's height that a new one is wide and high, and that its line is wide. */
const NEW_SIDE = 0.16;
const NEW_WIDTH = 0.006;

/** A new one at a spot: around it, or with its end there. */
export function twoPointsAt({ at, size, frame }: Spot, around: boolean) {
  // In pixels of what it stands on, as wide as it would be on the whole frame.
  const ratio = size.height / frame.height;
  const side = NEW_SIDE * frame.height * ratio;
  return {
    from: { x: at.x - side, y: at.y - side / 2 },
    to: around ? { x: at.x + side, y: at.y + side / 2 } : { ...at },
    width: Math.max(1, Math.round(NEW_WIDTH * frame.height * ratio)),
    color: '#c2412d',
    ...PLAIN_LINES,
  };
}

interface Lined {
  readonly width: number;
  readonly color: string;
  readonly outline: number;
  readonly edge: string;
}

/** Lines in a picture, in pixels of what they stand on, as far as they are drawn. */
export function linesLayers(
  { width, color, outline, edge }: Lined,
  scene: CalloutScene,
  paths: readonly (readonly Point[])[],
  closed = false,
): Layer[] {
  const part = paths.map((path) => path.map(scene.toOutput));
  const wide = Math.max(1, width * scene.scale);
  const mark: LinesMark = { kind: 'lines', paths: part, closed, width: wide, color };
  const around = { ...mark, width: wide + 2 * outline * scene.scale, color: edge };
  return [...(outline > 0 ? drawn(scene, around) : []), ...drawn(scene, mark)];
}

/** The handles of two points: all of it, and each of them. */
export const twoPointHandles = (
  { from, to }: TwoPoints,
  name: string,
  labels: readonly [from: string, to: string],
): Handle[] => [
  {
    id: 'area',
    label: `The ${name}`,
    look: 'area',
    ...boundsOf([from, to]),
    shift: { dx: 0, dy: 0 },
  },
  ...(
    [
      ['from', from, labels[0]],
      ['to', to, labels[1]],
    ] as const
  ).map(([id, at, label]) => ({
    ...{ id, label, at },
    look: 'corner' as const,
    shift: { dx: 0, dy: 0 },
    size: null,
  })),
];

/** What becomes of two points when a handle is moved. */
export const withTwoPointHandle = ({ from, to }: TwoPoints, id: string, { by }: Move) => ({
  ...(id === 'to' ? {} : { from: shifted(from, by) }),
  ...(id === 'from' ? {} : { to: shifted(to, by) }),
});

const ENDS = ['Where it begins', 'Where it ends'] as const;
const CORNERS = ['A corner', 'A corner'] as const;

const schemaOf = <const K extends string>(kind: K) => linesSchema(kind, twoPointProperties);
type TwoPointKind<K extends string> = CalloutKind<ReturnType<typeof schemaOf<K>>>;

/**
 * A kind of callout that nothing but two points say: a line between them, or an outline around
 * them.
 *
 * @param closed whether its lines end where they begin
 * @param paths its lines, in pixels of what it stands on
 */
export function twoPoints<const K extends string>(
  kind: K,
  closed: boolean,
  paths: (item: TwoPoints) => readonly (readonly Point[])[],
): TwoPointKind<K> {
  const schema = schemaOf<string>(kind);
  const made = {
    schema,
    name: kind,
    level: 'below',
    title: () => kind,
    create: (spot) => ({ kind, ...twoPointsAt(spot, closed), ...USUAL_MOTION }),
    marks(item, scene) {
      const whole = paths(item);
      if (scene.drawn >= 1) return linesLayers(item, scene, whole, closed);
      const rounds = closed ? whole.map((path) => [...path, ...path.slice(0, 1)]) : whole;
      return linesLayers(item, scene, partOfPaths(rounds, scene.drawn));
    },
    handles: (item) => twoPointHandles(item, kind, closed ? CORNERS : ENDS),
    withHandle: withTwoPointHandle,
    settings: linesSettings(schema),
    advice: () => 'Drag it, or one of its ends, on the Picture.',
  } satisfies TwoPointKind<string>;
  // What is true for any name is true for this one; the compiler can't follow a name that far.
  return made as unknown as TwoPointKind<K>;
}
