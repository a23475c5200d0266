import { createCanvas } from '@napi-rs/canvas';
import { PLAIN_VIDEO, type FramePlan, type Layer, type VideoLayer } from '@/core/frame/plan';
import { parseColor, rgbToYuv, yuvToRgb, type Rgb } from '@/core/key/color';
import type { Size } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, frameBytes, type PlanarFrame } from '@/kernels/planar';
import { Compositor, type FrameOf } from './compositor';
import type { Pen, Rasterizer } from './rasterizer';

/** Draws shapes as any canvas does; words are ten pixels a letter, whatever the typeface. */
export const plainRasterizer: Rasterizer = {
  draw(width, height, paint) {
    const context = createCanvas(width, height).getContext('2d');
    paint(context as unknown as Pen);
    return context.getImageData(0, 0, width, height).data;
  },
  family: () => 'sans-serif',
  measure: (_font, text) => text.length * 10,
  still: () => null,
  ready: () => Promise.resolve(),
};

/** A layer that shows a recording of the output's size as it is. */
export const wholeVideo = (
  { width, height }: Size,
  more: Partial<VideoLayer> = {},
): VideoLayer => ({
  kind: 'video',
  clipId: 'c',
  footageId: 'f',
  time: 0,
  speed: 1,
  footage: { width, height },
  source: { x: 0, y: 0, width, height },
  destination: { x: 0, y: 0, width, height },
  ...PLAIN_VIDEO,
  ...more,
});

/** A picture of one colour; both sides even. */
export function solidFrame(heap: KernelHeap, color: string, { width, height }: Size): PlanarFrame {
  const frame = allocateFrame(heap, width, height);
  const [y, u, v] = rgbToYuv(parseColor(color));
  const bytes = frameBytes(heap, frame);
  const [full, quarter] = [width * height, (width * height) / 4];
  bytes.fill(y, 0, full);
  bytes.fill(u, full, full + quarter);
  bytes.fill(v, full + quarter);
  return frame;
}

/** Holds colours against each other, channel by channel. */
export const near = (got: readonly number[], want: readonly number[], by = 4): void =>
  got.forEach((v, i) => expect(Math.abs(v - want[i]!)).toBeLessThanOrEqual(by));

/** What colour is where in a picture. */
type ColorAt = (x: number, y: number) => Rgb;

/** Draws layers into pictures of a size, both sides even, with kernels that are there by then. */
export function drawer(
  kernels: () => KernelHeap,
  { width, height }: Size,
): {
  /** Draws layers, each from the picture of its clip. */
  readonly draw: (
    layers: Layer[],
    pictures: Record<string, PlanarFrame>,
    background?: string,
  ) => ColorAt;
  /** The same with a say in which picture is whose. */
  readonly drawn: (layers: Layer[], frameOf: FrameOf, background?: string) => ColorAt;
} {
  const drawn = (layers: Layer[], frameOf: FrameOf, background = '#000000'): ColorAt => {
    const heap = kernels();
    const plan: FramePlan = { size: { width, height }, background, layers };
    const target = allocateFrame(heap, width, height);
    new Compositor(heap, plainRasterizer).compose(plan, frameOf, target);
    const bytes = frameBytes(heap, target).slice();
    const count = width * height;
    return (x, y) => {
      const chroma = count + (y >> 1) * (width / 2) + (x >> 1);
      return yuvToRgb([bytes[y * width + x]!, bytes[chroma]!, bytes[chroma + count / 4]!]);
    };
  };
  const draw = (layers: Layer[], pictures: Record<string, PlanarFrame>, background?: string) =>
    drawn(
      layers,
      ({ clipId }) => {
        const picture = pictures[clipId];
        return picture ? { picture, part: null, before: null, marks: null } : null;
      },
      background,
    );
  return { draw, drawn };
}
