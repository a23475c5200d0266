import { keepInside } from '../framing/path';
import type { Inset } from '../pointer/look';
import type { Scene, ScreenView } from '../scene/scene';
import { even, LEAST_LENS, LEAST_POWER } from '../scale/lens';
import type { InOutput, PointInFootage } from '../scale/rect';
import { coversWithin } from './callout-layers';
import { magnified, sharpPower } from './inset';

/**
 * The surroundings of the pointer in a circle over it, magnified.
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
  const { stage } = screen;
  const most = sharp ? Math.min(power, sharpPower(screen)) : power;
  const size = Math.min(even(side), Math.floor(Math.min(stage.width, stage.height) / 2) * 2);
  const tip = screen.toOutput(at);
  const box: InOutput = keepInside(
    { x: even(tip.x - size / 2), y: even(tip.y - size / 2), width: size, height: size },
    stage,
  );
  const none = { layers: [], box, tip, power: most };
  if (most < LEAST_POWER || size < LEAST_LENS) return none;
  const mask = { shape: 'ellipse', feather: 0 } as const;
  const found = magnified(scene, screen, at, box, most, mask, coversWithin(scene, screen));
  if (!found) return none;
  const { layers, source } = found;
  const scale = screen.scale * most;
  return {
    layers,
    box,
    tip: { x: box.x + (at.x - source.x) * scale, y: box.y + (at.y - source.y) * scale },
    power: most,
  };
}
