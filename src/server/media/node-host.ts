import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { createCanvas, GlobalFonts, type Canvas } from '@napi-rs/canvas';
import { PICTURE_FONTS, type Pen, type Rasterizer } from '@/compositor/rasterizer';
import { KernelHeap } from '@/kernels/heap';
import { programRoot } from '../places';

const fontFile = (subset: string) =>
  join(programRoot(), 'public', 'fonts', `picture-${subset}.woff2`);

/** The kernels, freshly started, with a memory of their own. */
export const loadKernels = async (): Promise<KernelHeap> =>
  KernelHeap.load(await readFile(join(programRoot(), 'public', 'kernels.wasm')));

let fontsReady: Promise<unknown> | null = null;
const registerFonts = () =>
  (fontsReady ??= Promise.all(
    PICTURE_FONTS.map(async ({ family, subset }) =>
      GlobalFonts.register(await readFile(fontFile(subset)), family),
    ),
  ));

/** Draws overlays in Node. */
export async function nodeRasterizer(): Promise<Rasterizer> {
  await registerFonts();
  let canvas: Canvas = createCanvas(512, 256);
  let context = canvas.getContext('2d');
  const ruler = createCanvas(8, 8).getContext('2d');
  return {
    draw(width, height, paint) {
      // A canvas is dear to make and serves for smaller pictures too.
      if (canvas.width < width || canvas.height < height) {
        canvas = createCanvas(Math.max(canvas.width, width), Math.max(canvas.height, height));
        context = canvas.getContext('2d');
      }
      context.clearRect(0, 0, width, height);
      paint(context as unknown as Pen);
      return context.getImageData(0, 0, width, height).data;
    },
    measure(font, text) {
      ruler.font = font;
      return ruler.measureText(text).width;
    },
  };
}
