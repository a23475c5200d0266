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
  | 'textBaseline'
>;

/** Draws vector shapes into pixels; the host brings one (OffscreenCanvas, or a canvas for Node). */
export interface Rasterizer {
  /** RGBA bytes, not premultiplied, of a picture that `paint` drew on a clear ground. */
  draw(width: number, height: number, paint: (pen: Pen) => void): Uint8ClampedArray;
  /** Width of a line of text in pixels. */
  measure(font: string, text: string): number;
}

/** The typeface of all words on the picture; hosts register it under this name. */
export const PICTURE_FONT = 'Atkinson Hyperlegible Next Variable';
