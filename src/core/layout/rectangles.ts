import type { LayoutKind, PresenterPlacement } from '../project/model';
import {
  evenRound,
  fitSize,
  intersect,
  type InFootage,
  type InOutput,
  type Size,
} from '../scale/rect';

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

/**
 * Side by side, the screen takes this share of the frame's width; the rest is the presenter's and
 * the space between.
 */
const SIDE_SCREEN = 0.7;
const SIDE_SPACE = 0.02;

/** The part of the output that the screen has in a layout, in the output's own shape. */
export function screenStage(layout: LayoutKind, output: Size): InOutput {
  if (layout !== 'side') return { x: 0, y: 0, ...output };
  const space = SIDE_SPACE * output.width;
  const width = SIDE_SCREEN * output.width - 1.5 * space;
  const height = (width * output.height) / output.width;
  return onGrid({ x: space, y: (output.height - height) / 2, width, height });
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

/**
 * Where the presenter's footage falls in the output for a layout; null when the layout shows none.
 *
 * @param area the part of the recording that counts as the whole
 */
export function placePresenter(
  layout: LayoutKind,
  placement: PresenterPlacement,
  area: InFootage,
  output: Size,
): Placement | null {
  if (layout === 'screen') return null;
  if (layout === 'presenter')
    return {
      source: centered(area, fitSize(output, area)),
      destination: { x: 0, y: 0, ...output },
    };
  if (layout === 'side') {
    const stage = screenStage(layout, output);
    const x = stage.x * 2 + stage.width;
    const destination = onGrid({
      x,
      y: stage.y,
      width: output.width - x - stage.x,
      height: stage.height,
    });
    const size = fitSize(destination, area);
    const shift = (placement.center.x - 0.5) * area.width;
    const source = centered(area, size);
    return {
      source: {
        ...source,
        x: Math.min(Math.max(source.x + shift, area.x), area.x + area.width - size.width),
      },
      destination,
    };
  }
  const height = output.height * placement.size;
  const source = placement.shape === 'circle' ? squareSource(placement, area) : area;
  const width = (height * source.width) / source.height;
  const margin = placement.margin * output.height;
  const [vertical, horizontal] = placement.corner.split('-') as [
    'top' | 'bottom',
    'left' | 'right',
  ];
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

const centered = (area: InFootage, size: Size): InFootage => ({
  x: area.x + (area.width - size.width) / 2,
  y: area.y + (area.height - size.height) / 2,
  ...size,
});

function squareSource(placement: PresenterPlacement, area: InFootage): InFootage {
  const side = Math.min(placement.crop * area.height, area.width);
  const clamp = (center: number, length: number) =>
    Math.min(Math.max(center * length - side / 2, 0), length - side);
  return {
    x: area.x + clamp(placement.center.x, area.width),
    y: area.y + clamp(placement.center.y, area.height),
    width: side,
    height: side,
  };
}
