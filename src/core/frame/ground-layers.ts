import { pictureOfGround, plainGround, type Ground } from '../layout/ground';
import { footageOf, type Sources } from '../project/sources';
import { fitSize, type Size } from '../scale/rect';
import { filled, PLAIN_VIDEO, type Layer } from './plan';

/**
 * What is drawn behind all else, beyond one colour that the picture is filled with: nothing for a
 * colour, or for a picture that is gone.
 *
 * @param opacity 0 to 1, while it comes over another
 */
export function groundLayers(
  ground: Ground,
  sources: Sources,
  output: Size,
  opacity = 1,
): readonly Layer[] {
  const [stillId] = pictureOfGround(ground);
  if (stillId === undefined) {
    const to = typeof ground === 'object' && 'to' in ground ? ground.to : null;
    if (to === null && opacity === 1) return [];
    return [{ ...filled(output, plainGround(ground), to), opacity }];
  }
  const still = footageOf(sources, stillId);
  if (!still?.hasVideo)
    return opacity === 1 ? [] : [{ ...filled(output, plainGround(ground)), opacity }];
  const part = fitSize(output, still);
  return [
    {
      ...{ kind: 'video', clipId: `ground ${still.id}`, footageId: still.id, time: 0, speed: 0 },
      footage: { width: still.width, height: still.height },
      source: { x: (still.width - part.width) / 2, y: (still.height - part.height) / 2, ...part },
      destination: { x: 0, y: 0, ...output },
      ...{ ...PLAIN_VIDEO, opacity },
    },
  ];
}
