import { assertNever } from '../assert-never';
import type { Mask } from '../layout/mask';
import { outset } from '../layout/own-shape';
import type { PresenterPlace } from '../layout/rectangles';
import type { InOutput, Size } from '../scale/rect';
import type { OutlineMark } from './mark';
import type { DrawingLayer, Reflection, VideoLayer } from './plan';

/** How soft a shadow is and how far below it lies, as shares of the picture's height. */
const SOFT = 0.05;
const BELOW = 0.008;

type Outline = Pick<OutlineMark, 'shape' | 'radius' | 'points'>;

/** The outline that a mask leaves of a box, drawn so many pixels further out. */
function shapeOf(mask: Mask | null, away = 0): Outline {
  switch (mask?.shape) {
    case undefined:
      return { shape: 'rectangle', radius: 0 };
    case 'rounded':
      return { shape: 'rounded', radius: mask.radius > 0 ? mask.radius + away : 0 };
    case 'path': {
      const points = outset(mask.points, away).map(({ x, y }) => ({ x: x + away, y: y + away }));
      return { shape: 'path', radius: 0, points: points as OutlineMark['points'] };
    }
    default:
      return { shape: mask!.shape, radius: 0 };
  }
}

const drawing = (mark: OutlineMark, opacity: number): DrawingLayer => ({
  ...{ kind: 'drawing', mark, opacity, blend: 'normal' },
});

/** The coloured edge of a screen or presenter, in a list that is empty where there is none. */
export function ringOf(
  box: InOutput,
  mask: Mask | null,
  ring: PresenterPlace['ring'],
  ratio: number,
  reflection: Reflection | null = null,
): DrawingLayer[] {
  if (!ring) return [];
  const { width, color, second = null } = ring;
  const away = awayOf(ring, ratio);
  const around = {
    ...{ x: box.x - away, y: box.y - away },
    ...{ width: box.width + 2 * away, height: box.height + 2 * away },
  };
  const mark: OutlineMark = {
    ...{ kind: 'outline', ...shapeOf(mask, away) },
    ...{ box: around, fill: null, stroke: { width: width * ratio, color, second } },
  };
  return [{ ...drawing(mark, 1), reflection }];
}

/**
 * How far a ring's middle stands from what it surrounds, beyond the gap and with all of its width;
 * whole even pixels, as the box has.
 */
const awayOf = ({ width, gap = 0 }: NonNullable<PresenterPlace['ring']>, ratio: number): number =>
  gap > 0 ? Math.round((gap + width / 2) * ratio * 0.5) * 2 : 0;

/** How far down something is seen reflected, as a share of its height. */
const REACH = 0.4;

/**
 * How what is seen in a box, with its ring, is reflected below; null where it is not, or where the
 * picture ends.
 *
 * @param strength 0 to 1
 */
export function reflectionOf(
  box: InOutput,
  ring: PresenterPlace['ring'],
  strength: number,
  ratio: number,
  output: Size,
): Reflection | null {
  if (strength <= 0) return null;
  const beyond = ring ? awayOf(ring, ratio) + (ring.width * ratio) / 2 : 0;
  const ground = box.y + box.height + Math.ceil(beyond / 2) * 2;
  const reach = REACH * box.height;
  const end = Math.min(ground + Math.ceil(reach / 2) * 2, output.height & ~1);
  return end > ground ? { ground, end, strength, reach } : null;
}

/** Of a box's sides, how much lies beyond the largest box within an ellipse of its size. */
const BEYOND_ELLIPSE = (1 - Math.SQRT1_2) / 2;

/** How far within a box's sides a mask leaves all opaque; null where that is not told. */
function opaqueWithin(mask: Mask | null, { width, height }: Size): { x: number; y: number } | null {
  switch (mask?.shape) {
    case undefined:
      return { x: 0, y: 0 };
    case 'rectangle':
      return { x: mask.feather, y: mask.feather };
    case 'rounded': {
      const inwards =
        2 * BEYOND_ELLIPSE * Math.min(mask.radius, width / 2, height / 2) + mask.feather;
      return { x: inwards, y: inwards };
    }
    // A squircle is wider than an ellipse.
    case 'squircle':
    case 'ellipse':
      return {
        x: BEYOND_ELLIPSE * width + mask.feather,
        y: BEYOND_ELLIPSE * height + mask.feather,
      };
    case 'path':
      return null;
    default:
      return assertNever(mask!);
  }
}

/** A part of the output, on even pixels, where a layer is opaque: nothing behind it is seen. */
export function hiddenBy(layer: VideoLayer): InOutput | null {
  const { mask, opacity, blend, turn, key, backdrop, destination: box } = layer;
  const within = opaqueWithin(mask, box);
  const seeThrough = opacity < 1 || blend !== 'normal' || turn !== 0 || (key && !backdrop);
  if (seeThrough || !within) return null;
  // The edge of an outline is a pixel wide.
  const [x, y] = [within.x, within.y].map((by) => (mask ? 2 * Math.ceil(by / 2 + 1) : 0));
  const [width, height] = [box.width - 2 * x!, box.height - 2 * y!];
  return width > 0 && height > 0 ? { x: box.x + x!, y: box.y + y!, width, height } : null;
}

/**
 * The shadow behind a screen or presenter, in a list that is empty where there is none.
 *
 * @param hidden what need not be drawn of it
 */
export function shadowOf(
  box: InOutput,
  mask: Mask | null,
  dark: number,
  output: Size,
  hidden: InOutput | null = null,
): DrawingLayer[] {
  if (dark <= 0) return [];
  const below = Math.round((BELOW * output.height) / 2) * 2;
  const mark: OutlineMark = {
    ...{ kind: 'outline', ...shapeOf(mask), box: { ...box, y: box.y + below } },
    ...{ fill: '#000000', stroke: null, soft: SOFT * output.height, hidden },
  };
  return [drawing(mark, dark)];
}
