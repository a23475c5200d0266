import type { Blend, FootageKey } from '../project/model';
import type { Mask } from '../layout/mask';
import type { Ticks } from '../time/ticks';
import type { InFootage, InOutput, Size } from '../scale/rect';

/** One picture, described in plain data; layers from back to front. */
export interface FramePlan {
  readonly size: Size;
  readonly background: string;
  readonly layers: readonly Layer[];
}

export type Layer =
  | MixLayer
  | VideoLayer
  | CoverLayer
  | DimLayer
  | HaloLayer
  | PointerLayer
  | ShapeLayer
  | StrokeLayer
  | TextLayer;

/**
 * The way from one picture to another: each is what lies below with its own layers on top. Without
 * a motion the second is blended over the first; with one it moves in from outside, and in a push
 * the first moves out before it.
 */
export interface MixLayer {
  readonly kind: 'mix';
  readonly from: readonly Layer[];
  readonly to: readonly Layer[];
  /** Share of the second, 0 to 1. */
  readonly amount: number;
  readonly motion: {
    readonly kind: 'slide' | 'push';
    readonly from: 'left' | 'right' | 'top' | 'bottom';
  } | null;
}

export interface VideoLayer {
  readonly kind: 'video';
  readonly clipId: string;
  readonly footageId: string;
  /** Time in the footage. */
  readonly time: Ticks;
  /** Footage time that passes for one unit of timeline; 0 for a still or a frozen picture. */
  readonly speed: number;
  readonly footage: Size;
  readonly source: InFootage;
  readonly destination: InOutput;
  readonly mirror: boolean;
  readonly mask: Mask | null;
  readonly opacity: number;
  readonly blend: Blend;
  /** Degrees that it is turned about the middle of its destination, clockwise. */
  readonly turn: number;
  readonly key: FootageKey | null;
  /** Fills what the key has taken out, within the mask. */
  readonly backdrop: string | null;
  /** Shows the key's opacity in grey instead of the picture. */
  readonly matte: boolean;
  /** Change of brightness; null leaves it. */
  readonly adjust: { readonly brightness: number; readonly contrast: number } | null;
}

/** A recording as it is: whole, opaque, upright. */
export const PLAIN_VIDEO = {
  mirror: false,
  mask: null,
  opacity: 1,
  blend: 'normal',
  turn: 0,
  key: null,
  backdrop: null,
  matte: false,
  adjust: null,
} as const satisfies Partial<VideoLayer>;

/** Hides what is already drawn. */
export interface CoverLayer {
  readonly kind: 'cover';
  readonly destination: InOutput;
  readonly way: 'blur' | 'mosaic' | 'solid';
  /** Radius of the blur, or half the side of the mosaic's blocks. */
  readonly radius: number;
  readonly color: string;
}

/** Darkens what is already drawn, or drains it of colour, outside of a disc. */
export interface DimLayer {
  readonly kind: 'dim';
  readonly area: InOutput;
  readonly center: { readonly x: number; readonly y: number };
  readonly inner: number;
  readonly outer: number;
  readonly dark: number;
  readonly drained: number;
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
  readonly shape: 'ellipse' | 'rectangle' | 'rounded';
  /** Of rounded corners. */
  readonly radius: number;
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

/** Whether a layer hides all that lies behind its destination. */
export const isSolid = ({ key, mask, opacity, blend, turn }: VideoLayer): boolean =>
  !key && !mask && opacity === 1 && blend === 'normal' && turn === 0;

/**
 * Every video layer of a plan, those inside of a transition too; a clip that is drawn twice comes
 * twice.
 */
export function everyVideoLayer(layers: readonly Layer[]): VideoLayer[] {
  return layers.flatMap((layer) => {
    if (layer.kind === 'video') return [layer];
    return layer.kind === 'mix'
      ? [...everyVideoLayer(layer.from), ...everyVideoLayer(layer.to)]
      : [];
  });
}

/** All recordings that a plan shows, each clip once. */
export function videoLayers(layers: readonly Layer[]): VideoLayer[] {
  const found = new Map<string, VideoLayer>();
  for (const layer of everyVideoLayer(layers))
    if (!found.has(layer.clipId)) found.set(layer.clipId, layer);
  return [...found.values()];
}
