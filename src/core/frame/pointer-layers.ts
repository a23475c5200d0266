import { LOOKS, lookKindOf, type PointerLookName } from '../pointer/looks';
import { sourceTime } from '../project/clip-time';
import { spanAt } from '../project/query';
import type { Scene, ScreenView } from '../scene/scene';
import type { PointInFootage } from '../scale/rect';
import { pressAt, type PressNow } from '../telemetry/press';
import { isHiddenAt, pointerAt, shapeAt, type PointerShape } from '../telemetry/sample';
import { ticksToSeconds } from '../time/ticks';
import type { Layer } from './plan';

/** Height of a drawn pointer as a share of the frame's height, where nothing is magnified. */
const POINTER_HEIGHT = 0.035;

/** The pointer of a recording at an instant. */
export interface PointerNow {
  /** Where it is, in footage pixels. */
  readonly at: PointInFootage;
  readonly shape: PointerShape;
  /** The newest press; null before the first. */
  readonly press: PressNow | null;
  /** Whether the recording itself shows it. */
  readonly inPicture: boolean;
}

/** Where the pointer of a recording is; null without a pointer track, and while it is hidden. */
export function pointerIn(
  { sources, time }: Scene,
  { clip, footage }: ScreenView,
): PointerNow | null {
  const track = Object.hasOwn(sources.pointers, footage.id) ? sources.pointers[footage.id] : null;
  if (!track) return null;
  const ms = ticksToSeconds(sourceTime(clip, time)) * 1000;
  if (isHiddenAt(track, ms)) return null;
  return {
    at: pointerAt(track, ms),
    shape: shapeAt(track, ms),
    press: pressAt(track, ms),
    inPicture: track.inPicture !== false,
  };
}

const ORDER = Object.keys(LOOKS) as PointerLookName[];

/** The looks of the pointer, and the pointer itself where its recording does not show it. */
export function pointerLayers(scene: Scene, screen: ScreenView): Layer[] {
  const { project, output, ratio, time } = scene;
  const pointer = pointerIn(scene, screen);
  if (!pointer) return [];
  const tip = screen.toOutput(pointer.at);
  const zoom = screen.magnification * (screen.stage.width / output.width);
  const looks = spanAt(project.pointer, time)?.looks ?? [];
  const layers = ORDER.flatMap((kind) => looks.filter((look) => look.kind === kind)).flatMap(
    (look) =>
      lookKindOf(look).marks(look, {
        ...{ tip, scale: ratio * zoom, stage: screen.stage, press: pointer.press },
      }),
  );
  if (!pointer.inPicture)
    layers.push({
      kind: 'drawing',
      mark: {
        kind: 'pointer',
        tip,
        height: POINTER_HEIGHT * output.height * zoom,
        shape: pointer.shape,
      },
      opacity: 1,
      blend: 'normal',
    });
  return layers;
}
