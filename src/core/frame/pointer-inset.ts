import { keepInside } from '../framing/path';
import type { Inset } from '../pointer/look';
import type { Scene, ScreenView } from '../scene/scene';
import type { InOutput, PointInFootage } from '../scale/rect';
import { callouts } from './callout-layers';
import { videoLayer } from './video-layer';

const even = (n: number) => Math.round(n / 2) * 2;
/** Closer by less than this is no magnification. */
const WORTH = 1.02;
const LEAST_SIDE = 16;

/**
 * The surroundings of a spot of a recording in a circle over it, magnified, drawn from the
 * recording itself. Covers lie over it as they do over the rest, so that nothing that is hidden
 * shows through.
 *
 * @param side its diameter in output pixels; at most what the screen has
 * @param power times as large as the picture around it, as wanted
 * @param sharp holds the power to where no pixel of the recording is spread over more than one of
 *   the frame's; where that leaves nothing to magnify there is no inset
 */
export function pointerInset(
  scene: Scene,
  screen: ScreenView,
  at: PointInFootage,
  side: number,
  power: number,
  sharp: boolean,
): Inset {
  const { stage, area } = screen;
  const most = sharp ? Math.min(power, 1 / screen.frameScale) : power;
  const size = Math.min(even(side), Math.floor(Math.min(stage.width, stage.height) / 2) * 2);
  const tip = screen.toOutput(at);
  const box: InOutput = keepInside(
    { x: even(tip.x - size / 2), y: even(tip.y - size / 2), width: size, height: size },
    stage,
  );
  const scale = screen.scale * most;
  const source = keepInside(
    {
      ...{ x: at.x - size / scale / 2, y: at.y - size / scale / 2 },
      ...{ width: size / scale, height: size / scale },
    },
    area,
  );
  const none = { layers: [], box, tip, power: most };
  const fits = source.width <= area.width && source.height <= area.height;
  if (most < WORTH || size < LEAST_SIDE || !fits) return none;
  const toOutput: ScreenView['toOutput'] = ({ x, y }) => ({
    x: box.x + (x - source.x) * scale,
    y: box.y + (y - source.y) * scale,
  });
  const within: ScreenView = {
    ...screen,
    ...{ view: source, stage: box, placement: { source, destination: box } },
    ...{ scale, frameScale: screen.frameScale * most, toOutput },
    toFootage: ({ x, y }) => ({
      x: source.x + (x - box.x) / scale,
      y: source.y + (y - box.y) / scale,
    }),
  };
  const mask = { shape: 'ellipse', feather: 0 } as const;
  return {
    layers: [
      videoLayer(scene, screen, { source, destination: box }, { mask }),
      ...callouts(scene, within)('cover'),
    ],
    box,
    tip: toOutput(at),
    power: most,
  };
}
