import { everyMark, type Layer } from '@/core/frame/plan';

/** The part of the Canvas 2D interface that overlays are drawn with; both hosts have it. */
export type Pen = Pick<
  CanvasRenderingContext2D,
  | 'beginPath'
  | 'closePath'
  | 'moveTo'
  | 'lineTo'
  | 'ellipse'
  | 'rect'
  | 'roundRect'
  | 'fill'
  | 'stroke'
  | 'fillText'
  | 'strokeText'
  | 'save'
  | 'restore'
  | 'translate'
  | 'rotate'
  | 'shadowColor'
  | 'shadowBlur'
  | 'shadowOffsetY'
  | 'drawImage'
  | 'clip'
  | 'imageSmoothingQuality'
  | 'fillStyle'
  | 'strokeStyle'
  | 'lineWidth'
  | 'lineJoin'
  | 'lineCap'
  | 'font'
  | 'textAlign'
  | 'direction'
  | 'textBaseline'
>;

/** Draws vector shapes into pixels; the host brings one (OffscreenCanvas, or a canvas for Node). */
export interface Rasterizer {
  /** RGBA bytes, not premultiplied, of a picture that `paint` drew on a clear ground. */
  draw(width: number, height: number, paint: (pen: Pen) => void): Uint8ClampedArray;
  /** The typeface for the `font` of a pen that draws these words. */
  family(text: string): string;
  /** Width of a line of text in pixels. */
  measure(font: string, text: string): number;
  /** A still of the footage; null where it is not had (yet). */
  still(footageId: string): Still | null;
  /** Fetches what pictures will be drawn with; what can't be had is left out of them. */
  ready(needs: DrawingNeeds): Promise<void>;
}

/** A still as a host draws it. */
export interface Still {
  readonly image: CanvasImageSource;
  readonly width: number;
  readonly height: number;
}

/** What a host has to have at hand before a picture is drawn. */
export interface DrawingNeeds {
  /** Stills of the footage. */
  readonly stills: readonly string[];
  /** Texts that are written. */
  readonly words: readonly string[];
}

/** What a picture is drawn with. */
export function drawingNeeds(layers: readonly Layer[]): DrawingNeeds {
  const stills = new Set<string>();
  const words = new Set<string>();
  for (const mark of everyMark(layers)) {
    if (mark.kind === 'picture') stills.add(mark.footageId);
    if (mark.kind === 'words') words.add(mark.text);
    if (mark.kind === 'keys') words.add(mark.caps.join(' '));
  }
  return { stills: [...stills], words: [...words] };
}
