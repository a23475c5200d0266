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

/** The properties that all of them have. */
export const twoPointProperties = {
  from: Point,
  to: Point,
  width: LineWidth,
  color: colorSetting('Colour', '#c2412d'),
};

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
  };
}

/** Lines in a picture, in pixels of what they stand on, as far as they are drawn. */
export function linesLayers(
  { width, color }: { readonly width: number; readonly color: string },
  scene: CalloutScene,
  paths: readonly (readonly Point[])[],
  closed = false,
): Layer[] {
  const part = paths.map((path) => path.map(scene.toOutput));
  const mark: LinesMark = {
    kind: 'lines',
    paths: part,
    closed,
    width: Math.max(1, width * scene.scale),
    color,
  };
  return drawn(scene, mark);
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
  const made = {
    schema: schemaOf<string>(kind),
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
    advice: () => 'Drag it, or one of its ends, on the Picture.',
  } satisfies TwoPointKind<string>;
  // What is true for any name is true for this one; the compiler can't follow a name that far.
  return made as unknown as TwoPointKind<K>;
}
