import type { Pen, Rasterizer } from '@/compositor/rasterizer';
import { PICTURE_FONTS } from '@/compositor/rasterizer';
import { KernelHeap } from '@/kernels/heap';

/** The kernels, from where the application serves them. */
export async function loadKernels(): Promise<KernelHeap> {
  const response = await fetch('/kernels.wasm');
  if (!response.ok) throw new Error('The picture kernels could not be loaded. Reload the page.');
  return KernelHeap.load(await response.arrayBuffer());
}

/**
 * Draws overlays in a worker; the parts of the typeface lie in a folder of the server. They are
 * fetched first, so that no text is drawn in another.
 */
export async function browserRasterizer(fontsUrl: string): Promise<Rasterizer> {
  const { fonts } = self as unknown as { fonts: FontFaceSet };
  await Promise.all(
    PICTURE_FONTS.map(async ({ family, subset }) => {
      const url = `url(${fontsUrl}/picture-${subset}.woff2)`;
      fonts.add(await new FontFace(family, url, { weight: '200 800' }).load());
    }),
  );
  const canvas = new OffscreenCanvas(64, 64);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  const ruler = new OffscreenCanvas(8, 8).getContext('2d')!;
  return {
    draw(width, height, paint) {
      canvas.width = width;
      canvas.height = height;
      paint(context as unknown as Pen);
      return context.getImageData(0, 0, width, height).data;
    },
    measure(font, text) {
      ruler.font = font;
      return ruler.measureText(text).width;
    },
  };
}
