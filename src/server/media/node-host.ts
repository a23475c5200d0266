import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { createCanvas, GlobalFonts, loadImage, type Canvas } from '@napi-rs/canvas';
import {
  PICTURE_FONTS,
  PictureFonts,
  type FontPart,
  type LateParts,
} from '@/compositor/font-parts';
import type { Pen, Rasterizer, Still } from '@/compositor/rasterizer';
import { KernelHeap } from '@/kernels/heap';
import { programRoot } from '../places';

const fontFile = (subset: string) =>
  join(programRoot(), 'public', 'fonts', `picture-${subset}.woff2`);

/** The kernels, freshly started, with a memory of their own. */
export const loadKernels = async (): Promise<KernelHeap> =>
  KernelHeap.load(await readFile(join(programRoot(), 'public', 'kernels.wasm')));

const registered = new Map<string, Promise<void>>();

/** Makes a part of the typeface known to all canvases of the process. */
function registerFont({ family, subset }: FontPart): Promise<void> {
  const known = registered.get(subset);
  if (known) return known;
  const made = readFile(fontFile(subset)).then((bytes) => {
    GlobalFonts.register(bytes, family);
  });
  registered.set(subset, made);
  return made;
}

let fontsReady: Promise<PictureFonts> | null = null;
const registerFonts = () =>
  (fontsReady ??= Promise.all([
    readFile(join(programRoot(), 'public', 'fonts', 'late.json'), 'utf8'),
    ...PICTURE_FONTS.map(registerFont),
  ]).then(([late]) => new PictureFonts(JSON.parse(late) as LateParts)));

/** Stills of the footage, each read once; one that can't be read is not there. */
class Stills {
  private readonly known = new Map<string, Still | null>();

  constructor(private readonly paths: Readonly<Record<string, { readonly still?: string }>>) {}

  get(id: string): Still | null {
    return this.known.get(id) ?? null;
  }

  async read(id: string): Promise<void> {
    if (this.known.has(id)) return;
    const path = Object.hasOwn(this.paths, id) ? this.paths[id]!.still : undefined;
    this.known.set(id, path ? await loadImage(path).then(stillOf, () => null) : null);
  }
}

const stillOf = (image: Awaited<ReturnType<typeof loadImage>>): Still => ({
  // It draws as one of a browser does.
  image: image as unknown as CanvasImageSource,
  ...{ width: image.width, height: image.height },
});

/**
 * Draws overlays in Node.
 *
 * @param originals where stills lie, by the ids of their footage
 */
export async function nodeRasterizer(
  originals: Readonly<Record<string, { readonly still?: string }>> = {},
): Promise<Rasterizer> {
  const fonts = await registerFonts();
  const stills = new Stills(originals);
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
      // What one drawing sets is not the next one's.
      context.save();
      paint(context as unknown as Pen);
      context.restore();
      return context.getImageData(0, 0, width, height).data;
    },
    measure(font, text) {
      ruler.font = font;
      return ruler.measureText(text).width;
    },
    family: (text) => fonts.family(text),
    still: (id) => stills.get(id),
    ready: async (needs) => {
      await Promise.all([
        ...needs.stills.map((id) => stills.read(id)),
        ...needs.words.flatMap((text) => fonts.late(text)).map(registerFont),
      ]);
    },
  };
}
