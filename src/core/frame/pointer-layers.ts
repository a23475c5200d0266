import type { PointerScene } from '../pointer/look';
import { lookKindOf } from '../pointer/looks';
import { steadiedAt } from '../pointer/steady';
import type { Scene, ScreenView } from '../scene/scene';
import { pressAt } from '../telemetry/press';
import { pointerAt, shapeAt } from '../telemetry/sample';
import type { PointerMark } from './mark';
import type { Layer } from './plan';
import { pointerInset } from './pointer-inset';
import { pointerShown, trackIn } from './pointer-now';

/** Height of a drawn pointer as a share of the frame's height, where nothing is magnified. */
const POINTER_HEIGHT = 0.035;

/** The looks of the pointer, and the pointer itself where it is drawn. */
export function pointerLayers(scene: Scene, screen: ScreenView): Layer[] {
  const { project, output, ratio } = scene;
  const pointer = trackIn(scene, screen);
  if (!pointer) return [];
  const { track, ms } = pointer;
  const { looks, shown } = pointerShown(scene, pointer);
  const size = pointer.drawn ? 1 : null;
  const scaleOf = (grows: boolean) => ratio * (grows ? screen.zoom : 1);
  // One that covers the recording's own has to stay over that.
  const tip = screen.toOutput(size === null && shown.size !== null ? pointer.at : shown.at);
  const steady = looks.find(({ look }) => look.kind === 'steady')?.look;
  const strength = steady?.kind === 'steady' ? steady.strength : 0;
  const mark: PointerMark | null =
    shown.size === null
      ? null
      : {
          kind: 'pointer',
          tip,
          height: POINTER_HEIGHT * project.canvas.height * shown.size * scaleOf(shown.grows),
          shape: shapeAt(track, ms),
        };
  const opacity = shown.opacity * shown.presence;
  const drawn = mark && opacity > 0 ? { mark, opacity } : null;
  const within: Omit<PointerScene, 'scale' | 'strength'> = {
    ...{ track, ms, output, stage: screen.stage, drawn },
    tip: screen.toOutput(shown.at),
    press: pressAt(track, ms),
    before: (ago) =>
      screen.toOutput(
        strength ? steadiedAt(track, strength, ms - ago) : pointerAt(track, ms - ago),
      ),
    inset: (side, power, sharp) => pointerInset(scene, screen, shown.at, side, power, sharp),
  };
  const marks = (level: 'below' | 'above') =>
    looks.flatMap(({ look, strength: here }) => {
      const kind = lookKindOf(look);
      if (kind.level !== level || !kind.marks) return [];
      return kind.marks(look, {
        ...within,
        scale: scaleOf('grows' in look && look.grows),
        strength: here * (kind.rests ? shown.presence : 1),
      });
    });
  return [
    ...marks('below'),
    ...(drawn
      ? [{ kind: 'drawing', mark: drawn.mark, opacity: drawn.opacity, blend: 'normal' } as const]
      : []),
    ...marks('above'),
  ];
}
