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
  /** Width of a line of text in pixels. */
  measure(font: string, text: string): number;
}

/** A part of the typeface as it ships: a file for a range of characters. */
export interface FontPart {
  /** Hosts register the part under this name. */
  readonly family: string;
  /** Part of its file's name. */
  readonly subset: string;
}

/** The typeface of all words on the picture, in the parts that it ships in. */
export const PICTURE_FONTS: readonly FontPart[] = [
  { family: 'Atkinson Hyperlegible Next Variable', subset: 'latin' },
  { family: 'Atkinson Hyperlegible Next Extended', subset: 'latin-ext' },
  // Other scripts, so that words look alike wherever they are drawn, whatever a machine has.
  { family: 'Picture Cyrillic', subset: 'cyrillic' },
  { family: 'Picture Greek', subset: 'greek' },
  { family: 'Picture Devanagari', subset: 'devanagari' },
  { family: 'Picture Hebrew', subset: 'hebrew' },
  { family: 'Picture Arabic', subset: 'arabic' },
];

/** The typeface for the `font` of a canvas: what one part does not have is taken from the next. */
export const PICTURE_FAMILY = PICTURE_FONTS.map(({ family }) => `"${family}"`).join(', ');
