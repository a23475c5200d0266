import { middleOf, sizeTurned, type InFootage, type Rect, type Size } from '../scale/rect';
import { keepInside } from './path';

/** Room between a turned view and the recording's edges, for filters, as a share of its width. */
const SPARE = 0.005;

/** The largest size that a rectangle has on its way to a turn: it is widest on its edge. */
function largestTurned(size: Size, degrees: number): Size {
  const angle = (Math.abs(degrees) * Math.PI) / 180;
  const { width, height } = sizeTurned(size, degrees);
  const longest = Math.hypot(size.width, size.height);
  return {
    width: angle > Math.atan2(size.height, size.width) ? longest : width,
    height: angle > Math.atan2(size.width, size.height) ? longest : height,
  };
}

/** The first angle, in radians, at which `along` and `across` reach beyond so much of a line. */
function firstBeyond(along: number, across: number, most: number): number {
  const longest = Math.hypot(along, across);
  if (most >= longest) return Infinity;
  return Math.atan2(across, along) - Math.acos(most / longest);
}

/**
 * How far a view can be turned about its middle with nothing beyond the recording being seen: as
 * far as wanted, or less. It goes to nothing evenly as the view comes near the recording's edges,
 * so that a ramp may ask for it in every frame.
 *
 * @param view footage pixels
 * @param area what there is of the recording
 * @param wanted degrees, less than a quarter turn either way
 * @returns degrees of the same sign
 */
export function turnThatFits(view: InFootage, area: Rect, wanted: number): number {
  if (!wanted) return 0;
  const { x, y, width, height } = view;
  const spare = SPARE * width;
  const across = 2 * Math.min(x - area.x, area.x + area.width - x - width) + width - spare;
  const down = 2 * Math.min(y - area.y, area.y + area.height - y - height) + height - spare;
  const most = Math.min(firstBeyond(width, height, across), firstBeyond(height, width, down));
  const degrees = Math.min(Math.abs(wanted), (Math.max(0, most) * 180) / Math.PI);
  return degrees && Math.sign(wanted) * degrees;
}

/**
 * A view that can be turned by so many degrees: the same, or about the same middle as far closer
 * and moved inwards as it must be for nothing beyond the recording to be seen.
 */
export function roomForTurn(view: InFootage, area: Rect, degrees: number): InFootage {
  if (!degrees) return view;
  const around = largestTurned(view, degrees);
  const spare = SPARE * view.width * 1.01;
  const share = Math.min(
    1,
    area.width / (around.width + spare),
    area.height / (around.height + spare),
  );
  const room = {
    width: (around.width + spare) * share,
    height: (around.height + spare) * share,
  };
  const { x, y } = middleOf(view);
  const kept = keepInside({ x: x - room.width / 2, y: y - room.height / 2, ...room }, area);
  const [width, height] = [view.width * share, view.height * share];
  const middle = middleOf(kept);
  return { x: middle.x - width / 2, y: middle.y - height / 2, width, height };
}
