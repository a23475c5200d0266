/**
 * The part of the Canvas 2D interface that the practice pictures are drawn with; a browser's canvas
 * and one for Node both have it.
 */
export type Brush = Pick<
  CanvasRenderingContext2D,
  | 'arc'
  | 'beginPath'
  | 'bezierCurveTo'
  | 'clip'
  | 'closePath'
  | 'createLinearGradient'
  | 'createRadialGradient'
  | 'ellipse'
  | 'fill'
  | 'fillRect'
  | 'fillText'
  | 'lineTo'
  | 'moveTo'
  | 'quadraticCurveTo'
  | 'rect'
  | 'restore'
  | 'roundRect'
  | 'save'
  | 'stroke'
  | 'translate'
  | 'fillStyle'
  | 'font'
  | 'lineCap'
  | 'lineJoin'
  | 'lineWidth'
  | 'strokeStyle'
  | 'textAlign'
  | 'textBaseline'
>;
