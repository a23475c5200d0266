import {
  Type,
  type Static,
  type TLiteral,
  type TObject,
  type TProperties,
} from '@sinclair/typebox';
import type { PointerMark } from '../frame/mark';
import type { Layer } from '../frame/plan';
import type { InOutput, PointInFootage, PointInOutput } from '../scale/rect';
import { strict } from '../schema/parts';
import { switchSetting } from '../schema/setting';
import type { PointerTrack } from '../telemetry/pointer-track';
import type { PressNow } from '../telemetry/press';

/** The pointer of a recording at an instant, as what is drawn of it is to show it. */
export interface PointerShown {
  /** Where it is, in footage pixels. */
  readonly at: PointInFootage;
  /** How large it is drawn beside its usual size; null where it is not drawn at all. */
  readonly size: number | null;
  /** Whether its size follows the magnification of the view. */
  readonly grows: boolean;
  /** Of the pointer itself, 0 to 1. */
  readonly opacity: number;
  /** Of the pointer and of what is drawn behind it, 0 to 1. */
  readonly presence: number;
  /** How much of one that the recording shows is painted out, as far as that can be, 0 to 1. */
  readonly bare: number;
}

/** What a look is told of the recording's pointer. */
export interface PointerMoment {
  readonly track: PointerTrack;
  /** Time in the recording, in milliseconds. */
  readonly ms: number;
  /** How far the span's fades have let the look in, 0 to 1. */
  readonly strength: number;
}

/** A part of the recording shown larger, over the picture. */
export interface Inset {
  readonly layers: readonly Layer[];
  /** How many times as large as the picture around it shows the same. */
  readonly power: number;
  /** Where it lies, and where the pointer is within it. */
  readonly box: InOutput;
  readonly tip: PointInOutput;
}

/** What a look is told of the picture that it is drawn in. */
export interface PointerScene extends PointerMoment {
  /** Where the pointer is. */
  readonly tip: PointInOutput;
  /** Output pixels for one of the pixels in which the look's sizes are. */
  readonly scale: number;
  /** Size of the picture. */
  readonly output: { readonly width: number; readonly height: number };
  /** The part of the output that the recording has. */
  readonly stage: InOutput;
  /** The newest press; null before the first. */
  readonly press: PressNow | null;
  /** The pointer as it is drawn; null where it is not. */
  readonly drawn: { readonly mark: PointerMark; readonly opacity: number } | null;
  /** Where the pointer was so many milliseconds ago. */
  readonly before: (ms: number) => PointInOutput;
  /**
   * The surroundings of the pointer in a circle about it, magnified; its covers cover there too.
   *
   * @param side its diameter in output pixels
   * @param power as wanted
   * @param sharp holds the power to where the recording's pixels are not spread
   */
  readonly inset: (side: number, power: number, sharp: boolean) => Inset;
}

/** Everything about one look of the pointer; the document, the picture and the forms derive. */
export interface PointerLookKind<S extends TObject> {
  /** The schema of the look, which has its name as the literal `kind`. */
  readonly schema: S;
  /** What it is called in Details. */
  readonly label: string;
  /** Whether it is drawn behind the pointer or over it. */
  readonly level: 'below' | 'above';
  /** Whether it fades with the pointer when that rests. */
  readonly rests?: boolean;
  /** Whether it is seen while the pointer is not, too. */
  readonly always?: boolean;
  /** Whether a pointer that the recording shows is painted out for it. */
  readonly paintsOut?: true;
  /** A sentence for Details on what it asks of a recording, if anything. */
  readonly note?: string;
  /** How it changes the pointer itself. */
  readonly treat?: (look: Static<S>, shown: PointerShown, moment: PointerMoment) => PointerShown;
  /** What is drawn of it. */
  readonly marks?: (look: Static<S>, scene: PointerScene) => Layer[];
}

/** The schema of a look: its name and its settings. */
export const lookSchema = <const K extends string, P extends TProperties>(kind: K, properties: P) =>
  strict({ kind: Type.Literal(kind, { default: kind }) as TLiteral<K>, ...properties });

/** The setting of looks that have a size in the frame, whatever the view's magnification. */
export const GROWS = {
  grows: {
    ...switchSetting('Larger in closer views', false),
    description: 'Sizes are frame pixels; with this, times the magnification of the view.',
  },
} as const;
