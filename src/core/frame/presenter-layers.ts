import { matteOf } from '../key/matte-of';
import type { Placement } from '../layout/rectangles';
import { fitSize } from '../scale/rect';
import { footageOf } from '../project/sources';
import { presenterOf, type Scene, type Shown } from '../scene/scene';
import { hiddenBy, reflectionOf, ringOf, shadowOf } from './edge';
import { PLAIN_VIDEO, type Layer, type VideoLayer } from './plan';
import { videoLayer } from './video-layer';

/** A presenter in a scene: their shadow, what is put behind them, they themselves and their ring. */
export function presenterLayers(scene: Scene, found: Shown): Layer[] {
  const { project, sources, ratio, output } = scene;
  const presenter = presenterOf(scene, found);
  if (!presenter) return [];
  const { footage, place } = presenter;
  const { mask, ring, source, destination, clear, shadow } = place;
  const reflection = reflectionOf(destination, ring, place.reflection, ratio, output);
  const key = project.keys.find((k) => k.footageId === footage.id && k.on);
  const matteId = (key && matteOf(sources, key)?.id) ?? null;
  // While its matte is not made yet, a recording is shown as it is.
  const keyed = key && (key.method === 'wall' || matteId) ? key : null;
  const behind = keyed && !clear ? project.presenter.backdrop : null;
  const still = typeof behind === 'object' && behind && 'footageId' in behind ? behind : null;
  const pictures = still
    ? stillBehind(scene, found, still.footageId, { ...place, reflection })
    : [];
  const layer = videoLayer(
    scene,
    presenter,
    { source, destination },
    {
      ...{ key: keyed, matteId: keyed && matteId, mask },
      mirror: project.presenter.mirror,
      backdrop: backdropIn(behind, footage.height),
      reflection,
    },
  );
  // A cut-out casts no shadow of the box that it was cut from.
  const stands = !keyed || layer.backdrop !== null || pictures.length > 0;
  return [
    ...(stands ? shadowOf(destination, mask, shadow, output, hiddenBy(pictures[0] ?? layer)) : []),
    ...pictures,
    layer,
    ...ringOf(destination, mask, ring, ratio, reflection),
  ];
}

/** What the compositor puts behind a presenter; a picture is a layer of its own. */
function backdropIn(
  behind: Scene['project']['presenter']['backdrop'],
  height: number,
): VideoLayer['backdrop'] {
  if (behind === null || typeof behind === 'string') return behind;
  return 'blur' in behind ? { blur: behind.blur * height } : null;
}

/** A picture that fills the presenter's outline; none where it is gone. */
function stillBehind(
  { sources }: Scene,
  { clip }: Shown,
  stillId: string,
  { destination, mask, reflection }: Placement & Pick<VideoLayer, 'mask' | 'reflection'>,
): VideoLayer[] {
  const still = footageOf(sources, stillId);
  if (!still?.hasVideo) return [];
  const part = fitSize(destination, still);
  const source = {
    x: (still.width - part.width) / 2,
    y: (still.height - part.height) / 2,
    ...part,
  };
  return [
    {
      ...{ kind: 'video', clipId: `${clip.id} behind`, footageId: still.id, time: 0, speed: 0 },
      ...{ footage: { width: still.width, height: still.height }, source, destination },
      ...{ ...PLAIN_VIDEO, mask, reflection },
    },
  ];
}
