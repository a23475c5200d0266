import type { FootageKey } from '../project/model';
import type { Ticks } from '../time/ticks';
import type { InFootage, InOutput, Size } from '../scale/rect';

/** One picture, described in plain data; layers from back to front. */
export interface FramePlan {
  readonly size: Size;
  readonly background: string;
  readonly layers: readonly Layer[];
}

export type Layer = VideoLayer | CoverLayer | HaloLayer | PointerLayer | ShapeLayer | StrokeLayer | TextLayer;

export interface VideoLayer {
  readonly kind: 'video';
  readonly clipId: string;
  readonly footageId: string;
  /** Time in the footage. */
  readonly time: Ticks;
  readonly footage: Size;
  readonly source: InFootage;
  readonly destination: InOutput;
  readonly mirror: boolean;
  readonly mask: 'none' | 'ellipse';
  readonly key: FootageKey | null;
  /** Shows the key's opacity in grey instead of the picture. */
  readonly matte: boolean;
  /** Change of brightness; null leaves it. */
  readonly adjust: { readonly brightness: number; readonly contrast: number } | null;
}

/** Blurs what is already drawn. */
export interface CoverLayer {
  readonly kind: 'cover';
  readonly destination: InOutput;
  readonly radius: number;
}

export interface HaloLayer {
  readonly kind: 'halo';
  readonly center: { readonly x: number; readonly y: number };
  readonly diameter: number;
  readonly color: string;
  readonly softness: number;
  readonly opacity: number;
}

/** The pointer, drawn over a recording that does not show it. */
export interface PointerLayer {
  readonly kind: 'pointer';
  /** Where it points to. */
  readonly tip: { readonly x: number; readonly y: number };
  /** Height of the arrow in output pixels. */
  readonly height: number;
  readonly shape: 'arrow' | 'text' | 'hand';
}

/** Lines of one colour and width: what was drawn by hand, or an outline. */
export interface StrokeLayer {
  readonly kind: 'stroke';
  /** Output pixels; each path is drawn on its own. */
  readonly paths: readonly (readonly { readonly x: number; readonly y: number }[])[];
  readonly closed: boolean;
  readonly width: number;
  readonly color: string;
  readonly opacity: number;
}

export interface ShapeLayer {
  readonly kind: 'shape';
  readonly shape: 'ellipse' | 'rectangle';
  readonly destination: InOutput;
  readonly fill: string | null;
  readonly stroke: { readonly width: number; readonly color: string } | null;
}

export interface TextLayer {
  readonly kind: 'text';
  readonly id: string;
  readonly text: string;
  readonly tip: { readonly x: number; readonly y: number };
  readonly offset: { readonly dx: number; readonly dy: number };
  readonly fontSize: number;
  readonly fill: string;
  readonly ink: string;
  readonly arrow: boolean;
  readonly opacity: number;
}
