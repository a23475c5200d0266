import {
  Type,
  type Static,
  type TLiteral,
  type TObject,
  type TProperties,
} from '@sinclair/typebox';
import type { Layer } from '../frame/plan';
import type { InOutput, PointInOutput } from '../scale/rect';
import type { PressNow } from '../telemetry/press';
import { strict } from '../schema/parts';

/** What a look is told of the picture that it is drawn in. */
export interface PointerScene {
  /** Where the pointer is. */
  readonly tip: PointInOutput;
  /** Output pixels for one frame pixel, as much larger as the view magnifies. */
  readonly scale: number;
  /** The part of the output that the recording has. */
  readonly stage: InOutput;
  /** The newest press; null before the first. */
  readonly press: PressNow | null;
}

/** Everything about one look of the pointer; the document, the picture and the forms derive. */
export interface PointerLookKind<S extends TObject> {
  /** The schema of the look, which has its name as the literal `kind`. */
  readonly schema: S;
  /** What it is called in Details. */
  readonly label: string;
  /** What is drawn of it. */
  readonly marks: (look: Static<S>, scene: PointerScene) => Layer[];
}

/** The schema of a look: its name and its settings. */
export const lookSchema = <const K extends string, P extends TProperties>(kind: K, properties: P) =>
  strict({ kind: Type.Literal(kind, { default: kind }) as TLiteral<K>, ...properties });
