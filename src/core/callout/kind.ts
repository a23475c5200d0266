import {
  Type,
  type Static,
  type TLiteral,
  type TObject,
  type TProperties,
} from '@sinclair/typebox';
import type { Mark } from '../frame/mark';
import type { Layer } from '../frame/plan';
import type { Mask } from '../layout/mask';
import { rectAround, type InOutput, type PointInOutput, type Size } from '../scale/rect';
import { Id, strict, Time, type Point } from '../schema/parts';
import { Anchor } from './anchor';
import { poseProperties, type Keyframe, type Pose } from './keyframes';
import { drawnMotionProperties, motionProperties } from './motion';
import type { Ticks } from '../time/ticks';

/** What a callout is told of the picture that it is drawn in. */
export interface CalloutScene {
  /** Milliseconds after the callout's start. */
  readonly ms: number;
  /** How present the callout is while it comes and goes, 0 to 1. */
  readonly presence: number;
  /** The share of its lines that is drawn while it comes and goes, 0 to 1. */
  readonly drawn: number;
  /** Of a count; 0 of all else. */
  readonly number: number;
  readonly output: Size;
  /** Output pixels for one frame pixel. */
  readonly ratio: number;
  /** Degrees that it is turned about its spot, clockwise; what lies on `toOutput` is so already. */
  readonly turn: number;
  /** How much of that comes of what it stands on. */
  readonly tilt: number;
  /** How many times as large it is in its pose; so are `scale`, `ratio` and `toOutput`. */
  readonly size: number;
  /** The part of the output that what it stands on has. */
  readonly stage: InOutput;
  /** Output pixels for one pixel of what it stands on. */
  readonly scale: number;
  readonly toOutput: (point: Point) => PointInOutput;
  /** How a recording that the callout stands on is shown larger; null where it stands on none. */
  readonly magnify: Magnify | null;
  /** Covers reach so much further, in output pixels, where what they hide may be. */
  readonly grown: number;
}

/** Shows parts of a recording larger, over the picture. */
export interface Magnify {
  /** The power at which no pixel of the recording is spread over more than one of the frame's. */
  readonly sharp: number;
  /**
   * The surroundings of a spot in a box of the picture, on even pixels, so many times as large as
   * the picture around it; null where the recording ends before.
   */
  readonly layers: (
    at: PointInOutput,
    box: InOutput,
    power: number,
    mask: Mask,
  ) => readonly Layer[] | null;
}

/** Where a new callout is made. */
export interface Spot {
  /** In pixels of what it will stand on. */
  readonly at: Point;
  /** Size of what it will stand on. */
  readonly size: Size;
  /** Of the project, in frame pixels. */
  readonly frame: Size;
}

/** A part of a callout that can be taken hold of. */
export interface Handle {
  readonly id: string;
  /** What it does, for the person who points at it. */
  readonly label: string;
  readonly look: 'point' | 'words' | 'area' | 'corner';
  /** In pixels of what the callout stands on; of an area its upper left corner. */
  readonly at: Point;
  /** Further from there, in frame pixels. */
  readonly shift: { readonly dx: number; readonly dy: number };
  /** Size of an area, in pixels of what the callout stands on. */
  readonly size: Size | null;
}

/** How far a handle was moved: in pixels of what the callout stands on, and in frame pixels. */
export interface Move {
  readonly by: { readonly dx: number; readonly dy: number };
  readonly frame: { readonly dx: number; readonly dy: number };
}

/** The handle that every kind has without showing it: all of the callout moves. */
export const WHOLE = 'whole';

/** Everything about one kind of callout; the document, the picture and the forms derive from it. */
export interface CalloutKind<S extends TObject> {
  /** The schema of the kind, which has its name as the literal `kind`. */
  readonly schema: S;
  /** What it is called, in the middle of a sentence. */
  readonly name: string;
  /** Covers hide the recording; all else is drawn below the pointer or above it. */
  readonly level: 'cover' | 'below' | 'above';
  /** Whether it is never turned, whatever its pose says: what it shows or hides lies upright. */
  readonly upright?: true;
  /** What the callout is called on the timeline. */
  readonly title: (item: Static<S>) => string;
  /** Whether it can be added at a spot; a line drawn by hand can't. */
  readonly create: ((spot: Spot) => Omit<Static<S>, keyof CalloutBase>) | null;
  /** What is drawn of it at an instant. */
  readonly marks: (item: Static<S>, scene: CalloutScene) => Layer[];
  readonly handles: (item: Static<S>) => Handle[];
  /** What becomes of it when a handle is moved. */
  readonly withHandle: (item: Static<S>, id: string, move: Move) => Partial<Static<S>>;
  /** Settings that count as it is now; all of them without. */
  readonly settings?: (item: Static<S>) => readonly string[];
  /** A word of advice in Details. */
  readonly advice: (item: Static<S>) => string | null;
  /** What is to be said of it as it is seen at an instant, if anything. */
  readonly reading?: (item: Static<S>, scene: CalloutScene) => string | null;
}

const BASE = { id: Id, start: Time, end: Time, anchor: Anchor, ...poseProperties };
export interface CalloutBase {
  id: string;
  start: Ticks;
  end: Ticks;
  anchor: Anchor;
  pose: Pose;
  keyframes: Keyframe[];
}

/** The schema of a kind of callout that is there from its first picture to its last. */
export const coverSchema = <const K extends string, P extends TProperties>(
  kind: K,
  properties: P,
) => strict({ ...BASE, kind: Type.Literal(kind) as TLiteral<K>, ...properties });

/** The schema of a kind of callout that comes and goes. */
export const calloutSchema = <const K extends string, P extends TProperties>(
  kind: K,
  properties: P,
) => coverSchema(kind, { ...properties, ...motionProperties });

/** The schema of a kind of callout that is made of lines, which can be drawn on. */
export const linesSchema = <const K extends string, P extends TProperties>(
  kind: K,
  properties: P,
) => coverSchema(kind, { ...properties, ...drawnMotionProperties });

/** A drawing of a callout, as present as the callout is. */
export const drawn = ({ presence }: CalloutScene, mark: Mark, opacity = 1): Layer[] =>
  presence > 0 ? [{ kind: 'drawing', mark, opacity: presence * opacity, blend: 'normal' }] : [];

/** A point moved by so much. */
export const shifted = ({ x, y }: Point, { dx, dy }: Move['by']): Point => ({
  x: x + dx,
  y: y + dy,
});

/** The smallest rectangle around points. */
export function boundsOf(points: readonly Point[]): { at: Point; size: Size } {
  const { x, y, width, height } = rectAround(points);
  return { at: { x, y }, size: { width, height } };
}
