import { assertNever } from '../assert-never';
import type { Point } from '../schema/parts';
import {
  evenRound,
  fitSize,
  intersect,
  type InFootage,
  type InOutput,
  type Size,
} from '../scale/rect';
import type { Mask } from './mask';
import type { Box, Layout } from './model';
import { curveThrough, PEBBLE } from './own-shape';
import type { PresenterPlacement } from './placement';

export interface Placement {
  /** Part of the footage that is seen. */
  readonly source: InFootage;
  readonly destination: InOutput;
}

/** A destination brought to whole even pixels. */
const onGrid = (rect: InOutput): InOutput => {
  const x = evenRound(rect.x);
  const y = evenRound(rect.y);
  return {
    x,
    y,
    width: Math.max(2, evenRound(rect.x + rect.width) - x),
    height: Math.max(2, evenRound(rect.y + rect.height) - y),
  };
};

/** Which of the two have something to show at an instant. */
export interface There {
  readonly screen: boolean;
  readonly presenter: boolean;
}

const whole = (output: Size): InOutput => ({ x: 0, y: 0, ...output });

/** A box in output pixels, on the grid; the whole picture as it is. */
function placeBox(box: Box, output: Size): InOutput {
  if (box.x === 0 && box.y === 0 && box.width === 1 && box.height === 1) return whole(output);
  return onGrid({
    x: box.x * output.width,
    y: box.y * output.height,
    width: box.width * output.width,
    height: box.height * output.height,
  });
}

/** Whether a layout hides the screens that lie behind the presenter. */
export const hidesScreen = ({ screen }: Layout, there: There): boolean =>
  screen === null && there.presenter;

/**
 * The part of the output, in output pixels, that a screen which is seen has in a layout. What no
 * box is said for takes the whole picture.
 */
export function screenStage({ screen, alone }: Layout, there: There, output: Size): InOutput {
  if (!screen || (alone === 'whole' && !there.presenter)) return whole(output);
  return placeBox(screen.box, output);
}

/**
 * The outline and the edge of a screen, or of what of it lies on its stage; none where it has the whole
 * picture.
 *
 * @param stage the part of the output that it has
 * @param destination where its pixels go
 */
export function screenEdge(
  { screen }: Layout,
  stage: InOutput,
  destination: InOutput,
  output: Size,
): Pick<PresenterPlace, 'mask' | 'ring' | 'shadow'> {
  if (!screen || (stage.width >= output.width && stage.height >= output.height))
    return { mask: null, ring: null, shadow: 0 };
  const { rounding = 0, ring = null, shadow = 0 } = screen;
  const mask =
    rounding > 0 ? outline({ shape: 'rounded', feather: 0, rounding }, destination) : null;
  return { mask, ring: edgeOf(ring), shadow };
}

/**
 * Where a screen recording falls in the output for a view of it, in whole even
 * output pixels; the source rectangle is exact and may have fractions. Null when
 * the view shows nothing of it.
 *
 * @param footage size of the recording, or the area of it that may be seen
 * @param stage the part of the output that it has
 */
export function placeScreen(
  view: InFootage,
  footage: Size | InFootage,
  stage: Size | InOutput,
): Placement | null {
  const area: InFootage = 'x' in footage ? footage : { x: 0, y: 0, ...footage };
  const on: InOutput = 'x' in stage ? stage : { x: 0, y: 0, ...stage };
  const scale = on.width / view.width;
  const seen = intersect(
    {
      x: on.x + (area.x - view.x) * scale,
      y: on.y + (area.y - view.y) * scale,
      width: area.width * scale,
      height: area.height * scale,
    },
    on,
  );
  if (seen.width < 2 || seen.height < 2) return null;
  const destination = onGrid(seen);
  const source = intersect(
    {
      x: (destination.x - on.x) / scale + view.x,
      y: (destination.y - on.y) / scale + view.y,
      width: destination.width / scale,
      height: destination.height / scale,
    },
    area,
  );
  return { source, destination };
}

/** Where the presenter is in the output, the outline of what is seen of it, and its edge. */
export interface PresenterPlace extends Placement {
  readonly mask: Mask | null;
  /** Whether nothing is behind a keyed presenter. */
  readonly clear: boolean;
  /** Lengths are in frame pixels. */
  readonly ring: {
    readonly width: number;
    readonly color: string;
    readonly second?: string | null;
    readonly gap?: number;
  } | null;
  /** How dark the shadow behind them is, 0 to 1. */
  readonly shadow: number;
  /** How clearly they are seen upside down below, 0 to 1. */
  readonly reflection: number;
}

/**
 * Where the presenter's footage falls in the output for a layout; null when the layout shows none.
 *
 * @param placed where the project places the presenter
 * @param area the part of the recording that counts as the whole, in footage pixels
 */
export function placePresenter(
  { presenter, alone }: Layout,
  there: There,
  placed: PresenterPlacement,
  area: InFootage,
  output: Size,
): PresenterPlace | null {
  if (!presenter) return null;
  if (alone === 'whole' && !there.screen)
    return { ...fillBox(whole(output), CENTER, area), ...PLAIN_EDGE };
  if (presenter === 'placed') {
    const place = placeInset(placed, area, output);
    const mask = outline(placed, place.destination);
    const { shadow, reflection = 0 } = placed;
    return { ...place, mask, ring: edgeOf(placed.ring), shadow, reflection, clear: false };
  }
  const box = placeBox(presenter.box, output);
  const place = fillBox(box, presenter.center ?? placed.center, area, presenter.crop);
  const mask = outline(presenter, place.destination);
  const { ring, shadow = 0, reflection = 0, clear = false } = presenter;
  return { ...place, mask, ring: edgeOf(ring), shadow, reflection, clear };
}

/** A part of an area, moved by so many pixels as far as the area goes. */
export const movedWithin = (part: InFootage, by: Point, area: InFootage): InFootage => ({
  ...part,
  x: Math.min(Math.max(part.x + by.x, area.x), area.x + area.width - part.width),
  y: Math.min(Math.max(part.y + by.y, area.y), area.y + area.height - part.height),
});

const PLAIN_EDGE = { mask: null, ring: null, shadow: 0, reflection: 0, clear: false } as const;

const CENTER = { x: 0.5, y: 0.5 };

const edgeOf = (ring: PresenterPlace['ring']) => (ring && ring.width > 0 ? ring : null);

/**
 * The largest part of an area that has a box's shape, or a share of it, around a middle as far as it
 * goes.
 */
function fillBox(destination: InOutput, center: Point, area: InFootage, share = 1): Placement {
  const largest = fitSize(destination, area);
  const size = { width: largest.width * share, height: largest.height * share };
  const at = (middle: number, start: number, length: number, part: number) =>
    Math.min(Math.max(start + length * middle - part / 2, start), start + length - part);
  return {
    source: {
      x: at(center.x, area.x, area.width, size.width),
      y: at(center.y, area.y, area.height, size.height),
      ...size,
    },
    destination,
  };
}

/** The presenter as an inset in a corner. */
function placeInset(placed: PresenterPlacement, area: InFootage, output: Size): Placement {
  const height = output.height * placed.size;
  const aspect = aspectOf(placed.shape);
  const source = aspect ? faceSource(placed, area, aspect) : area;
  const width = (height * source.width) / source.height;
  const margin = placed.margin * output.height;
  const [vertical, horizontal] = placed.corner.split('-') as ['top' | 'bottom', 'left' | 'right'];
  return {
    source,
    destination: onGrid({
      x: horizontal === 'left' ? margin : output.width - margin - width,
      y: vertical === 'top' ? margin : output.height - margin - height,
      width,
      height,
    }),
  };
}

/** Of a portrait, width by height. */
const PORTRAIT = 3 / 4;

/**
 * Width by height of a shape that shows the presenter's face and not all of their recording; null
 * for one that shows all of it.
 */
export function aspectOf(shape: PresenterPlacement['shape']): number | null {
  switch (shape) {
    case 'circle':
    case 'squircle':
    case 'own':
      return 1;
    case 'portrait':
    case 'ellipse':
      return PORTRAIT;
    case 'rectangle':
    case 'rounded':
      return null;
    default:
      return assertNever(shape);
  }
}

function faceSource(placed: PresenterPlacement, area: InFootage, aspect: number): InFootage {
  const width = Math.min(placed.crop * area.height * aspect, area.width);
  const height = width / aspect;
  const clamp = (center: number, length: number, side: number) =>
    Math.min(Math.max(center * length - side / 2, 0), length - side);
  return {
    x: area.x + clamp(placed.center.x, area.width, width),
    y: area.y + clamp(placed.center.y, area.height, height),
    ...{ width, height },
  };
}

/** Corners of a rounded inset where nothing else is said, as a share of its shorter side. */
export const ROUNDING = 0.14;

/** The outline of a presenter's box; null where all of it is seen. */
function outline(
  {
    shape,
    feather,
    path = PEBBLE,
    rounding = ROUNDING,
  }: Pick<PresenterPlacement, 'shape' | 'feather' | 'path'> & { readonly rounding?: number },
  { width, height }: InOutput,
): Mask | null {
  const soft = feather * height;
  switch (shape) {
    case 'circle':
    case 'ellipse':
      return { shape: 'ellipse', feather: soft };
    case 'squircle':
      return { shape: 'squircle', feather: soft };
    case 'rounded':
    case 'portrait':
      return { shape: 'rounded', radius: rounding * Math.min(width, height), feather: soft };
    case 'own':
      return { shape: 'path', points: curveThrough(path, { width, height }), feather: soft };
    case 'rectangle':
      return soft > 0 ? { shape: 'rectangle', feather: soft } : null;
    default:
      return assertNever(shape);
  }
}
