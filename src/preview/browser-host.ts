import {
  PICTURE_FONTS,
  PictureFonts,
  type FontPart,
  type LateParts,
} from '@/compositor/font-parts';
import type { Pen, Rasterizer, Still } from '@/compositor/rasterizer';
import { footageUrl } from '@/contract/footage';
import { KernelHeap } from '@/kernels/heap';

/** A still that could not be had is asked for again after so long, in ms. */
const AGAIN = 500;

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
  const { fonts: faces } = self as unknown as { fonts: FontFaceSet };
  const loading = new Map<string, Promise<void>>();
  const load = ({ family, subset }: FontPart): Promise<void> => {
    const known = loading.get(subset);
    if (known) return known;
    const url = `url(${fontsUrl}/picture-${subset}.woff2)`;
    const face = new FontFace(family, url, { weight: '100 900' });
    const loaded = face.load().then(() => void faces.add(face));
    loading.set(subset, loaded);
    // What could not be fetched is tried again when it is wanted again.
    loaded.catch(() => loading.delete(subset));
    return loaded;
  };
  const [late] = await Promise.all([
    fetch(`${fontsUrl}/late.json`).then((response) => response.json() as Promise<LateParts>),
    ...PICTURE_FONTS.map(load),
  ]);
  const fonts = new PictureFonts(late);
  const stills = new Map<string, Still>();
  const missing = new Map<string, number>();
  const read = async (id: string): Promise<void> => {
    if (stills.has(id) || performance.now() - (missing.get(id) ?? -Infinity) < AGAIN) return;
    // What is not there yet, as while it is prepared, is asked for again before long.
    missing.set(id, performance.now());
    const response = await fetch(footageUrl(id, 'still')).catch(() => null);
    if (!response?.ok) return;
    const image = await createImageBitmap(await response.blob()).catch(() => null);
    if (image) stills.set(id, { image, width: image.width, height: image.height });
  };
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
    family: (text) => fonts.family(text),
    still: (id) => stills.get(id) ?? null,
    ready: async (needs) => {
      const parts = needs.words.flatMap((text) => fonts.late(text));
      // Words are drawn without a part that can't be had, rather than not at all.
      await Promise.all([
        ...needs.stills.map(read),
        ...parts.map((part) => load(part).catch(() => {})),
      ]);
    },
  };
}
