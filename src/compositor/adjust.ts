import type { Adjustment } from '@/core/frame/plan';
import { BLACK, MIDDLE, RANGE, WARMEST } from '@/core/key/light';
import type { KernelHeap } from '@/kernels/heap';
import type { Plane } from '@/kernels/planar';
import type { Inset } from './inset';
import type { ColorPlanes, PlaneName } from './scaled';

/** Code values are some power of light (ITU-R BT.709). */
const GAMMA = 0.45;

/**
 * Changes light and colours of a picture; its colours are multiplied by its opacity. Contrast widens
 * the colours too, as it does in RGB, and so does exposure.
 *
 * @param alphas its opacity; null for a picture that has none
 */
export function adjustColors(
  heap: KernelHeap,
  planes: ColorPlanes,
  alphas: Inset | null,
  change: Adjustment,
): void {
  const { y } = planes;
  if (change.temperature)
    for (const name of ['u', 'v'] as const) {
      const { at, stride, width, height } = planes[name];
      heap.exports.tintPlane(
        ...([at, stride, width, height, y.at, y.stride, y.width, y.height] as const),
        WARMEST[name] * change.temperature,
      );
    }
  for (const name of ['y', 'u', 'v'] as const)
    adjustPlane(heap, planes[name], name, alphas, change);
}

/** Changes one plane of a picture, sample by sample; all but the warmth of its light. */
export function adjustPlane(
  heap: KernelHeap,
  plane: Plane,
  name: PlaneName,
  alphas: Inset | null,
  { brightness, contrast, exposure, saturation }: Adjustment,
): void {
  const light = name === 'y';
  const alpha = light ? alphas?.alpha : alphas?.chromaAlpha;
  const gain = 2 ** (exposure * GAMMA);
  heap.exports.adjustPlane(
    plane.at,
    plane.stride,
    alpha?.at ?? 0,
    alpha?.stride ?? 0,
    plane.width,
    plane.height,
    contrast * gain * (light ? 1 : saturation),
    light ? BLACK * (1 - gain) * contrast + MIDDLE * (1 - contrast) + brightness * RANGE : 0,
    light ? 0 : 128,
  );
}
