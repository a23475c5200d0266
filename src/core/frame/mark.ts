import type { InOutput, PointInOutput } from '../scale/rect';
import type { PointerShape } from '../telemetry/sample';

/** What a drawing shows, in output pixels. */
export type Mark =
  | LinesMark
  | OutlineMark
  | DiscMark
  | PointerMark
  | WordsMark
  | KeysMark
  | PictureMark;

/** Lines of one colour and width, each drawn on its own; closed ones can be filled. */
export interface LinesMark {
  readonly kind: 'lines';
  readonly paths: readonly (readonly PointInOutput[])[];
  readonly closed: boolean;
  readonly width: number;
  readonly color: string;
}

/** A rectangle, an ellipse or a shape between them on whole pixels, filled, stroked or both. */
export interface OutlineMark {
  readonly kind: 'outline';
  readonly shape: 'ellipse' | 'rectangle' | 'rounded' | 'squircle' | 'path';
  /** Of rounded corners. */
  readonly radius: number;
  /** Corners of a closed path, from the box's upper left one; of no other shape. */
  readonly points?: readonly PointInOutput[];
  readonly box: InOutput;
  readonly fill: string | null;
  /** Colour that the fill goes over to from the upper left to the lower right. */
  readonly fillTo?: string | null;
  readonly stroke: {
    readonly width: number;
    readonly color: string;
    /** Colour that it goes over to from the upper left to the lower right. */
    readonly second?: string | null;
  } | null;
  /** Shows nothing but the shadow that it casts straight behind it, this soft. */
  readonly soft?: number;
  /** What is hidden behind what casts the shadow, on even pixels, and need not be drawn. */
  readonly hidden?: InOutput | null;
}

/** A disc with a soft edge. */
export interface DiscMark {
  readonly kind: 'disc';
  readonly center: PointInOutput;
  readonly diameter: number;
  readonly color: string;
  /** 0 is a hard edge; 1 fades from the middle. */
  readonly softness: number;
}

/** The picture of a pointer. */
export interface PointerMark {
  readonly kind: 'pointer';
  /** Where it points to. */
  readonly tip: PointInOutput;
  /** Height of the arrow. */
  readonly height: number;
  readonly shape: PointerShape;
}

/** Keycaps side by side, with what stands on each. */
export interface KeysMark {
  readonly kind: 'keys';
  readonly caps: readonly string[];
  readonly fontSize: number;
  readonly fill: string;
  readonly ink: string;
  /** Where its left, middle or right is, and its top or bottom. */
  readonly at: PointInOutput;
  readonly align: 'left' | 'middle' | 'right';
  readonly from: 'top' | 'bottom';
  /** Degrees that they are turned about their place, clockwise. */
  readonly turn: number;
}

/** How the letters of words stand. */
export interface Lettering {
  /** As in a font: 400 is regular, 700 bold. */
  readonly weight: number;
  /** Where lines that are shorter than the longest stand; the start is where reading begins. */
  readonly align: 'start' | 'middle' | 'end';
  /** Around each letter. */
  readonly outline: { readonly width: number; readonly color: string } | null;
  /** A soft shadow below the box, or below the letters where they have none. */
  readonly shadow: boolean;
}

/**
 * Words in a box, which is kept inside the picture, with an arrow or a tail to a spot; without a
 * fill they stand bare where they are said.
 */
export interface WordsMark {
  readonly kind: 'words';
  readonly text: string;
  readonly tip: PointInOutput;
  /** From the tip to the middle of the box. */
  readonly offset: { readonly dx: number; readonly dy: number };
  readonly fontSize: number;
  /** Of the box, and of what points. */
  readonly fill: string | null;
  /** Whether the box is filled; what points is drawn all the same. */
  readonly ground: boolean;
  /** Radius of the box's corners. */
  readonly corner: number;
  readonly ink: string;
  readonly pointing: 'arrow' | 'tail' | null;
  readonly lettering: Lettering;
  /** Degrees that all of it is turned about the tip, clockwise. */
  readonly turn: number;
}

/** A still of the footage in a box; parts of it may be see-through. */
export interface PictureMark {
  readonly kind: 'picture';
  readonly footageId: string;
  readonly box: InOutput;
  /** Radius of its corners. */
  readonly corner: number;
  /** Degrees that it is turned about its middle, clockwise. */
  readonly turn: number;
}
