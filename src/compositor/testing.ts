import { createCanvas } from '@napi-rs/canvas';
import { PLAIN_VIDEO, type VideoLayer } from '@/core/frame/plan';
import { parseColor, rgbToYuv } from '@/core/key/color';
import type { Size } from '@/core/scale/rect';
import type { KernelHeap } from '@/kernels/heap';
import { allocateFrame, frameBytes, type PlanarFrame } from '@/kernels/planar';
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
