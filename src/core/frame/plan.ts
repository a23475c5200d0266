import { assertNever } from '../assert-never';
import type { FootageKey } from '../key/model';
import type { Mask } from '../layout/mask';
import type { Blend, FootageLook } from '../project/parts/look';
import type { Ticks } from '../time/ticks';
import type { InFootage, InOutput, PointInOutput, Size } from '../scale/rect';
import type { Mark } from './mark';

/** One picture, described in plain data; layers from back to front. */
export interface FramePlan {
  readonly size: Size;
  readonly background: string;
  readonly layers: readonly Layer[];
}

/** The things that a picture is made of. A new look or callout is put together of these. */
export type Layer = VideoLayer | RegionLayer | DrawingLayer | MixLayer | TurnedLayer;

/**
 * A picture of its own, opaque all over, that is turned about its middle and seen in a part of the
 * whole, which it fills.
 */
export interface TurnedLayer {
  readonly kind: 'turned';
  /** In pixels of the picture that is turned. */
  readonly layers: readonly Layer[];
  /** Of the picture that is turned; even sides. */
  readonly size: Size;
  /** What is seen where they leave it bare. */
  readonly background: string;
  /** Degrees, clockwise. */
  readonly turn: number;
  /** Where its middle comes to. */
  readonly about: PointInOutput;
  /** On even output pixels. */
  readonly destination: InOutput;
  readonly mask: Mask | null;
  readonly opacity: number;
  readonly blend: Blend;
}

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

/**
 * What stands on a line is seen once more below it, upside down and the weaker the further down, as
 * on polished ground. Even output pixels.
 */
export interface Reflection {
  /** Where the ground is: the first row below it. */
  readonly ground: number;
  /** Where nothing is left of it; within the output. */
  readonly end: number;
  /** How clear it is at the ground, and how far down it would go, in output pixels. */
  readonly strength: number;
  readonly reach: number;
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
  /** The matte that stands in for a key by colour; null where colour tells. */
  readonly matteId: string | null;
  /**
   * Fills what the key has taken out, within the mask: a colour, or the recording's own background,
   * blurred by a radius in footage pixels.
   */
  readonly backdrop: string | { readonly blur: number } | null;
  /** Shows the key's opacity in grey instead of the picture. */
  readonly matte: boolean;
  /** Whether its text is rebuilt where it is magnified. */
  readonly crisp: boolean;
  /** Change of brightness and colours; null leaves them. */
  readonly adjust: Adjustment | null;
  readonly reflection: Reflection | null;
}

/** How a recording's light and colours are changed. */
export type Adjustment = Pick<
  FootageLook,
  'brightness' | 'contrast' | 'exposure' | 'saturation' | 'temperature'
>;

/** Light and colours as they are. */
export const UNADJUSTED: Adjustment = {
  ...{ brightness: 0, contrast: 1, exposure: 0, saturation: 1, temperature: 0 },
};

/** A recording as it is: whole, opaque, upright. */
export const PLAIN_VIDEO = {
  mirror: false,
  mask: null,
  opacity: 1,
  blend: 'normal',
  turn: 0,
  key: null,
  matteId: null,
  backdrop: null,
  matte: false,
  crisp: false,
  adjust: null,
  reflection: null,
} as const satisfies Partial<VideoLayer>;

/** An effect on what is already drawn, in a part of the picture on even pixels. */
export interface RegionLayer {
  readonly kind: 'region';
  readonly area: InOutput;
  readonly effect: RegionEffect;
}

export type RegionEffect =
  /** The radius of a blur, or half the side of a mosaic's blocks, in output pixels. */
  | { readonly kind: 'blur' | 'mosaic'; readonly radius: number }
  /** Painted over with `#rrggbb`. */
  | { readonly kind: 'solid'; readonly color: string }
  /**
   * Darkened, drained of colour or blurred outside of a disc, or of a box as wide as the disc and
   * `tall` times as high as wide; shares of 0 to 1, the blur's radius in output pixels.
   */
  | {
      readonly kind: 'dim';
      readonly center: PointInOutput;
      readonly inner: number;
      readonly outer: number;
      readonly dark: number;
      readonly drained: number;
      readonly shape: 'disc' | 'box';
      readonly tall: number;
      readonly blur: number;
    };

/** Something drawn over what is already there. */
export interface DrawingLayer {
  readonly kind: 'drawing';
  readonly mark: Mark;
  /** 0 to 1. */
  readonly opacity: number;
  /** A tint leaves dark pixels dark, as a lamp would. */
  readonly blend: 'normal' | 'tint';
  readonly reflection?: Reflection | null;
}

/** Whether a layer hides all that lies behind its destination, and draws nowhere else. */
export const isSolid = (layer: VideoLayer | TurnedLayer): boolean => {
  const { mask, opacity, blend } = layer;
  if (mask || opacity < 1 || blend !== 'normal') return false;
  return layer.kind === 'turned' || (!layer.key && layer.turn === 0 && !layer.reflection);
};

/** A picture of one colour, or of one that goes over to another. */
export const filled = (
  { width, height }: Size,
  color: string,
  to: string | null = null,
): DrawingLayer => ({
  kind: 'drawing',
  mark: {
    kind: 'outline',
    shape: 'rectangle',
    radius: 0,
    box: { x: 0, y: 0, width, height },
    fill: color,
    fillTo: to,
    stroke: null,
  },
  opacity: 1,
  blend: 'normal',
});

/**
 * Every video layer of a plan, those inside of a transition too; a clip that is drawn twice comes
 * twice.
 */
export const everyVideoLayer = (layers: readonly Layer[]): VideoLayer[] =>
  everyPlainLayer(layers).filter((layer) => layer.kind === 'video');

/** The layers that hold no others, within transitions and turned pictures too. */
export const everyPlainLayer = (
  layers: readonly Layer[],
): Exclude<Layer, MixLayer | TurnedLayer>[] =>
  layers.flatMap((layer) => {
    switch (layer.kind) {
      case 'mix':
        return [...everyPlainLayer(layer.from), ...everyPlainLayer(layer.to)];
      case 'turned':
        return everyPlainLayer(layer.layers);
      case 'video':
      case 'region':
      case 'drawing':
        return [layer];
      default:
        return assertNever(layer);
    }
  });

/** Everything that a plan draws, within transitions too. */
export const everyMark = (layers: readonly Layer[]): Mark[] =>
  everyPlainLayer(layers).flatMap((layer) => (layer.kind === 'drawing' ? [layer.mark] : []));

/** All recordings that a plan shows, each clip once. */
export function videoLayers(layers: readonly Layer[]): VideoLayer[] {
  const found = new Map<string, VideoLayer>();
  for (const layer of everyVideoLayer(layers))
    if (!found.has(layer.clipId)) found.set(layer.clipId, layer);
  return [...found.values()];
}
