import type { Compositor, FrameOf } from '@/compositor/compositor';
import { everyVideoLayer } from '@/core/frame/plan';
import { planFrame } from '@/core/frame/plan-frame';
import { parseColor, rgbToYuv } from '@/core/key/color';
import { gradeMatte, type MatteGrade } from '@/core/key/grade';
import type { Project } from '@/core/project/model';
import type { Sources } from '@/core/project/sources';
import type { Ticks } from '@/core/time/ticks';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, frameBytes, releaseFrame } from '@/kernels/planar';
import type { ApartReaders } from './apart-readers';

/** Width of the picture that is graded: what is smaller than its pixels is not seen in an inset. */
const WIDTH = 640;
/** Neither lighter nor darker than what is keyed, and of no colour. */
const GREY = '#808080';

/**
 * Grades the key of the presenter's recording at a time of the timeline. Null where it has no key,
 * where its picture can't be had, and where nobody is left.
 */
export async function gradeKey(
  heap: KernelHeap,
  compositor: Compositor,
  readers: ApartReaders,
  project: Project,
  sources: Sources,
  time: Ticks,
): Promise<MatteGrade | null> {
  const { width, height } = project.canvas;
  const size = { width: WIDTH, height: Math.max(2, Math.round((WIDTH * height) / width / 2) * 2) };
  const plan = planFrame(project, sources, time, size, { presenter: 'matte' });
  const layer = everyVideoLayer(plan.layers)[0];
  if (!layer?.key || !layer.matte) return null;
  const [picture, matte] = [await readers.read(layer), await readers.readMatte(layer)];
  if (!picture) return null;
  const frameOf: FrameOf = (_, what) => (what === 'matte' ? matte : picture);
  const target = allocateFrame(heap, size.width, size.height);
  try {
    const drawn = (more: { readonly matte: boolean }, background: string) => {
      const layers = [{ ...layer, ...more }];
      compositor.compose({ size, background, layers }, frameOf, target);
      return frameBytes(heap, target).slice();
    };
    const shown = drawn({ matte: true }, '#000000');
    const over = drawn({ matte: false }, GREY);
    const count = size.width * size.height;
    const alpha = Uint8Array.from(shown.subarray(0, count), (luma) =>
      Math.max(0, Math.min(255, Math.round(((luma - 16) * 255) / 219))),
    );
    const [u, v] = [over.subarray(count, count * 1.25), over.subarray(count * 1.25, count * 1.5)];
    const scale = layer.source.width / layer.destination.width;
    return gradeMatte({ ...size, alpha, u, v, scale }, wallDirection(layer.key));
  } finally {
    releaseFrame(heap, target);
  }
}

/** Direction of a wall's colour from grey; null where no wall is keyed, or a grey one. */
function wallDirection({
  method,
  color,
}: Project['keys'][number]): { readonly u: number; readonly v: number } | null {
  const [, u, v] = rgbToYuv(parseColor(color));
  const length = Math.hypot(u - 128, v - 128);
  return method === 'wall' && length > 1 ? { u: (u - 128) / length, v: (v - 128) / length } : null;
}
