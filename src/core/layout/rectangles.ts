import type { LayoutKind, PresenterPlacement } from '../project/model';
import { evenRound, fitSize, intersect, type InFootage, type InOutput, type Size } from '../scale/rect';

export interface Placement {
  /** Part of the footage that is seen. */
  readonly source: InFootage;
  readonly destination: InOutput;
}

/** A destination brought to whole even pixels. */
const onGrid = (rect: InOutput): InOutput => {
  const x = evenRound(rect.x);
  const y = evenRound(rect.y);
  return { x, y, width: Math.max(2, evenRound(rect.x + rect.width) - x), height: Math.max(2, evenRound(rect.y + rect.height) - y) };
};

/**
 * Where a screen recording falls in the output for a view of it, in whole even
 * output pixels; the source rectangle is exact and may have fractions. Null when
 * the view shows nothing of it.
 */
export function placeScreen(view: InFootage, footage: Size, output: Size): Placement | null {
  const scale = output.width / view.width;
  const seen = intersect(
    { x: -view.x * scale, y: -view.y * scale, width: footage.width * scale, height: footage.height * scale },
    { x: 0, y: 0, ...output },
  );
  if (seen.width < 2 || seen.height < 2) return null;
  const destination = onGrid(seen);
  const whole: InFootage = { x: 0, y: 0, ...footage };
  const source = intersect(
    {
      x: destination.x / scale + view.x,
      y: destination.y / scale + view.y,
      width: destination.width / scale,
      height: destination.height / scale,
    },
    whole,
  );
  return { source, destination };
}

/** Where the presenter's footage falls in the output for a layout; null when the layout shows none. */
export function placePresenter(layout: LayoutKind, placement: PresenterPlacement, footage: Size, output: Size): Placement | null {
  if (layout === 'screen') return null;
  if (layout === 'presenter') {
    const source = fitSize(output, footage);
    return {
      source: { x: (footage.width - source.width) / 2, y: (footage.height - source.height) / 2, ...source },
      destination: { x: 0, y: 0, ...output },
    };
  }
  const height = output.height * placement.size;
  const source = placement.shape === 'circle' ? squareSource(placement, footage) : { x: 0, y: 0, ...footage };
  const width = (height * source.width) / source.height;
  const margin = placement.margin * output.height;
  const [vertical, horizontal] = placement.corner.split('-') as ['top' | 'bottom', 'left' | 'right'];
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

function squareSource(placement: PresenterPlacement, footage: Size): InFootage {
  const side = Math.min(placement.crop * footage.height, footage.width);
  const clamp = (center: number, length: number) => Math.min(Math.max(center * length - side / 2, 0), length - side);
  return { x: clamp(placement.center.x, footage.width), y: clamp(placement.center.y, footage.height), width: side, height: side };
}
