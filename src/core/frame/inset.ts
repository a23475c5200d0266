import { keepInside } from '../framing/path';
import type { Mask } from '../layout/mask';
import { mappings, type Scene, type ScreenView } from '../scene/scene';
import type { InFootage, InOutput, PointInFootage } from '../scale/rect';
import type { Layer } from './plan';
import { videoLayer } from './video-layer';

/** A part of a recording that is shown larger in a box of the picture. */
export interface Magnified {
  readonly layers: Layer[];
  /** What of the recording is in the box. */
  readonly source: InFootage;
}

/**
 * The surroundings of a spot of a recording, magnified in a box and drawn from the recording itself.
 * What covers the recording covers it there too, so that nothing that is hidden shows through.
 *
 * @param at the spot, which lies in the box's middle unless the recording ends before
 * @param box in output pixels, on even ones
 * @param power times as large as the picture around it
 * @param covers what covers the recording as it is seen in the box
 * @returns null where the recording is smaller than what the box would show
 */
export function magnified(
  scene: Scene,
  screen: ScreenView,
  at: PointInFootage,
  box: InOutput,
  power: number,
  mask: Mask,
  covers: (within: ScreenView) => readonly Layer[],
): Magnified | null {
  const { area } = screen;
  const scale = screen.scale * power;
  const [width, height] = [box.width / scale, box.height / scale];
  if (width > area.width || height > area.height) return null;
  const source = keepInside({ x: at.x - width / 2, y: at.y - height / 2, width, height }, area);
  const ways = mappings(source, box, scale);
  const within: ScreenView = {
    ...screen,
    ...{ view: source, stage: box, placement: { source, destination: box } },
    ...{ scale, frameScale: screen.frameScale * power },
    ...{ ...ways, fromPicture: ways.toFootage },
  };
  return {
    source,
    layers: [videoLayer(scene, screen, { source, destination: box }, { mask }), ...covers(within)],
  };
}

/** The power at which no pixel of a recording is spread over more than one of the frame's. */
export const sharpPower = ({ frameScale }: Pick<ScreenView, 'frameScale'>): number =>
  1 / frameScale;
