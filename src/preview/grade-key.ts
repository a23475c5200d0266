import type { Compositor, FrameOf } from '@/compositor/compositor';
import { everyVideoLayer, type VideoLayer } from '@/core/frame/plan';
import { planFrame } from '@/core/frame/plan-frame';
import { parseColor, rgbToYuv } from '@/core/key/color';
import { gradeMatte, type MatteGrade } from '@/core/key/grade';
import { takeColors, type TakeColors } from '@/core/key/match-look';
import type { Project } from '@/core/project/model';
import type { Sources } from '@/core/project/sources';
import type { Size } from '@/core/scale/rect';
import type { Ticks } from '@/core/time/ticks';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, frameBytes, releaseFrame } from '@/kernels/planar';
import type { ApartReaders } from './apart-readers';

/** Width of the picture that is graded: what is smaller than its pixels is not seen in an inset. */
const WIDTH = 640;
/** Neither lighter nor darker than what is keyed, and of no colour. */
const GREY = '#808080';

/** What measuring takes: memory, a compositor of its own, pictures and the project. */
export interface Measuring {
  readonly heap: KernelHeap;
  readonly compositor: Compositor;
  readonly readers: ApartReaders;
  readonly project: Project;
  readonly sources: Sources;
}

/** The presenter's recording alone, keyed: opacity, and the picture over grey. */
interface KeyedPlanes {
  readonly layer: VideoLayer;
  readonly size: Size;
  readonly alpha: Uint8Array;
  readonly y: Uint8Array;
  readonly u: Uint8Array;
  readonly v: Uint8Array;
}

/** Draws the presenter's recording at a time of the timeline alone; null where it can't be had. */
async function keyedPlanes(
  { heap, compositor, readers, project, sources }: Measuring,
  time: Ticks,
): Promise<KeyedPlanes | null> {
  const { width, height } = project.canvas;
  const size = { width: WIDTH, height: Math.max(2, Math.round((WIDTH * height) / width / 2) * 2) };
  const plan = planFrame(project, sources, time, size, { presenter: 'matte' });
  const layer = everyVideoLayer(plan.layers)[0];
  if (!layer) return null;
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
    const alpha = layer.key
      ? Uint8Array.from(shown.subarray(0, count), (luma) =>
          Math.max(0, Math.min(255, Math.round(((luma - 16) * 255) / 219))),
        )
      : new Uint8Array(count).fill(255);
    const [y, u] = [over.subarray(0, count), over.subarray(count, count * 1.25)];
    return { layer, size, alpha, y, u, v: over.subarray(count * 1.25, count * 1.5) };
  } finally {
    releaseFrame(heap, target);
  }
}

/**
 * Grades the key of the presenter's recording at a time of the timeline. Null where it has no key,
 * where its picture can't be had, and where nobody is left.
 */
export async function gradeKey(measuring: Measuring, time: Ticks): Promise<MatteGrade | null> {
  const drawn = await keyedPlanes(measuring, time);
  if (!drawn?.layer.key) return null;
  const { layer, size, alpha, u, v } = drawn;
  const scale = layer.source.width / layer.destination.width;
  return gradeMatte({ ...size, alpha, u, v, scale }, wallDirection(drawn.layer.key));
}

/**
 * The presenter's colours as recorded at a time of the timeline; of all of the picture where
 * nothing is keyed. Null where they can't be told.
 */
export async function colorsAt(measuring: Measuring, time: Ticks): Promise<TakeColors | null> {
  const drawn = await keyedPlanes(measuring, time);
  return drawn && takeColors(drawn.size, drawn.alpha, drawn.y, drawn.u, drawn.v);
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
