import type { FrameRate, Ticks } from '../time/ticks';
import type { CaptionNeed, TargetId } from './targets';

/*
 * The project document: one JSON value. Every property is always present and
 * optional things are null, so that equal documents have equal text.
 */

export const PROJECT_FORMAT = 'vistum-project';
export const PROJECT_VERSION = 4;

export interface Project {
  format: typeof PROJECT_FORMAT;
  version: typeof PROJECT_VERSION;
  canvas: Canvas;
  target: ProjectTarget;
  script: ScriptSettings;
  /** Front to back: what comes first covers what comes later. */
  lanes: Lane[];
  /** Ordered by start, never overlapping. */
  framings: Framing[];
  layouts: LayoutSpan[];
  pointer: PointerSpan[];
  callouts: Callout[];
  /** In the order of the outline. */
  steps: Step[];
  /** Ordered by time. */
  markers: Marker[];
  /** Clips that count as one item, by the group's id in the clip. */
  groups: ClipGroup[];
  presenter: PresenterPlacement;
  /** Chroma key settings, one for each recording that has them. */
  keys: FootageKey[];
  /** What is shown of a recording and how bright it is, one for each recording that has one. */
  looks: FootageLook[];
}

/** Where the video will be shown, and what is asked of it there. */
export interface ProjectTarget {
  id: TargetId;
  /** Integrated loudness to reach, LUFS (ITU-R BS.1770). */
  loudness: number;
  captions: CaptionNeed;
}

export interface ScriptSettings {
  /** How fast the narration is read. */
  wordsPerMinute: number;
}

export interface Canvas {
  width: number;
  height: number;
  frameRate: FrameRate;
  /** `#rrggbb`, seen where no footage is. */
  background: string;
}

export const PICTURE_LANES = ['presenter', 'screen'] as const;
export const SOUND_LANES = ['voice', 'music', 'computer'] as const;
export const LANE_KINDS = [...PICTURE_LANES, ...SOUND_LANES] as const;
export type LaneKind = (typeof LANE_KINDS)[number];

export interface Lane {
  id: string;
  kind: LaneKind;
  name: string;
  /** Sound level in dB; of no effect on picture lanes. */
  gain: number;
  /** Not seen, or not heard. */
  off: boolean;
  /**
   * While any lane of its family (picture or sound) has this, only those that have it are seen or
   * heard.
   */
  solo: boolean;
  locked: boolean;
  /** Factor on the usual height of its kind on the timeline, 0.5 to 4. */
  height: number;
  /** Ordered by start, never overlapping. */
  clips: Clip[];
}

export interface Clip {
  id: string;
  footageId: string;
  start: Ticks;
  duration: Ticks;
  /** Time in the footage that is seen or heard at `start`. */
  source: Ticks;
  /** Clips that carry the same link move, trim and split together. */
  link: string | null;
  /**
   * Ticks of footage for one tick of the timeline, 0.1 to 16 in thousandths; 0 freezes the picture
   * at `source`.
   */
  speed: number;
  /** dB. */
  gain: number;
  /** Not heard. */
  muted: boolean;
  /** Fades of the sound at its ends, in timeline ticks. */
  fadeIn: Ticks;
  fadeOut: Ticks;
  /**
   * Level over time as `[footage time, dB]`, in order; straight lines between, the nearest value
   * outside. Being in footage time, points stay with the words they were set for, whatever is cut.
   */
  envelope: [Ticks, number][];
  /** At the cut where it begins, or at its free start. */
  transitionIn: Transition | null;
  /** At its free end; at a cut the clip that follows has the transition. */
  transitionOut: Transition | null;
  /** The group that it belongs to. */
  group: string | null;
}

export const TRANSITION_KINDS = ['dissolve', 'fade', 'slide', 'push'] as const;

/** How one picture becomes the next. */
export interface Transition {
  kind: (typeof TRANSITION_KINDS)[number];
  /**
   * As wanted; what neighbours and footage leave room for counts. Half of it lies on each side of a
   * cut.
   */
  duration: Ticks;
  /** A fade goes through this, `#rrggbb`. */
  color: string;
  /** The side that a slide or push comes from. */
  from: 'left' | 'right' | 'top' | 'bottom';
}

export interface ClipGroup {
  id: string;
  name: string;
}

/** A rectangle in footage pixels, y down. */
export interface FootageRect {
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface Framing {
  id: string;
  /** The view starts to move here. */
  start: Ticks;
  /** The view is back at the whole footage here, or goes over to the framing that starts here. */
  end: Ticks;
  rampIn: Ticks;
  rampOut: Ticks;
  footageId: string;
  rect: FootageRect;
  /** Planning again leaves it alone. */
  pinned: boolean;
  /** Why the planner made it; empty when a person did. */
  reason: string;
}

export const LAYOUT_KINDS = ['corner', 'side', 'presenter', 'screen'] as const;
export type LayoutKind = (typeof LAYOUT_KINDS)[number];

/** How screen and presenter share the picture for a while; elsewhere it is `corner`. */
export interface LayoutSpan {
  id: string;
  start: Ticks;
  end: Ticks;
  kind: LayoutKind;
}

export interface PointerSpan {
  id: string;
  start: Ticks;
  end: Ticks;
  halo: Halo;
  /** What becomes of all but the pointer's surroundings; null for nothing. */
  dim: DimAround | null;
}

export interface DimAround {
  /** Diameter of what stays as it is, in frame pixels at a magnification of 1. */
  size: number;
  /** Width of the passage as a share of the diameter, 0 to 1. */
  softness: number;
  /** How dark the rest becomes, 0 to 1. */
  dark: number;
  /** How much of its colour the rest loses, 0 to 1. */
  drained: number;
}

/** A soft disc behind the pointer. */
export interface Halo {
  /** Diameter in frame pixels at a magnification of 1. */
  size: number;
  /** `#rrggbb`. */
  color: string;
  /** 0: a hard edge; 1: fades from the middle. */
  softness: number;
  /** 0 to 1. */
  opacity: number;
}

export type Callout = TextCallout | CoverCallout | StrokeCallout | ShapeCallout;

interface CalloutBase {
  id: string;
  start: Ticks;
  end: Ticks;
  footageId: string;
}

/** A few words in a box, with an arrow to a spot of the footage. */
export interface TextCallout extends CalloutBase {
  kind: 'text';
  text: string;
  /** The arrow's tip, in footage pixels. */
  anchor: { x: number; y: number };
  /** From the tip to the middle of the box, in frame pixels: the box keeps its size in a zoom. */
  offset: { dx: number; dy: number };
  /** Height of the letters in frame pixels. */
  size: number;
  fill: string;
  ink: string;
  arrow: boolean;
}

/** Hides part of the footage. */
/** Blurred, in coarse blocks, or painted over. Only the last leaves nothing to guess. */
export const COVER_WAYS = ['blur', 'mosaic', 'solid'] as const;

export interface CoverCallout extends CalloutBase {
  kind: 'cover';
  rect: FootageRect;
  way: (typeof COVER_WAYS)[number];
  /** Blur radius, or half the side of a mosaic's blocks, in footage pixels. */
  strength: number;
  /** Of a solid cover, `#rrggbb`. */
  color: string;
}

/** A freehand line that appears as it was drawn. */
export interface StrokeCallout extends CalloutBase {
  kind: 'stroke';
  /** A marker pen is see-through. */
  tool: 'pen' | 'marker';
  /** `[ms, x, y]`: milliseconds after the callout's start, footage pixels. */
  points: [number, number, number][];
  /** Footage pixels. */
  width: number;
  color: string;
}

export const SHAPES = ['arrow', 'box', 'ellipse'] as const;

/** An arrow from one spot to another, or an outline that has them as opposite corners. */
export interface ShapeCallout extends CalloutBase {
  kind: 'shape';
  shape: (typeof SHAPES)[number];
  /** Footage pixels. */
  from: { x: number; y: number };
  to: { x: number; y: number };
  /** Footage pixels. */
  width: number;
  color: string;
}

export interface Step {
  id: string;
  /**
   * Where it begins on the timeline; null while nothing of it is recorded. No two begin at the same
   * instant.
   */
  start: Ticks | null;
  title: string;
  /** What is said. */
  narration: string;
  /** What happens on screen. */
  action: string;
  notes: string;
}

export interface Marker {
  id: string;
  time: Ticks;
  name: string;
  /** `#rrggbb`. */
  color: string;
}

export const CORNERS = ['top-left', 'top-right', 'bottom-left', 'bottom-right'] as const;
export type Corner = (typeof CORNERS)[number];

export const PRESENTER_SHAPES = ['circle', 'rectangle', 'rounded'] as const;

export interface PresenterPlacement {
  corner: Corner;
  /** Height of the inset as a share of the frame's height, 0.05 to 1. */
  size: number;
  /** Distance to the frame's edges as a share of its height, 0 to 0.3. */
  margin: number;
  shape: (typeof PRESENTER_SHAPES)[number];
  /** Width of the soft edge as a share of the inset's height, 0 to 0.3. */
  feather: number;
  mirror: boolean;
  /** Middle of the part that a circle shows, as shares of the footage's width and height. */
  center: { x: number; y: number };
  /** Height of the part that a circle shows, as a share of the footage's height, 0.2 to 1. */
  crop: number;
  /** Fills the inset behind a keyed presenter, `#rrggbb`; null leaves it clear. */
  backdrop: string | null;
  /** A coloured edge; width in frame pixels, 0 for none. */
  ring: { width: number; color: string };
}

export interface FootageKey {
  footageId: string;
  on: boolean;
  /** `#rrggbb` of the wall. */
  color: string;
  /**
   * Distance from the wall, along its own direction in the chroma plane, below which a pixel is
   * wall, in 8-bit code values, 0 to 120.
   */
  tolerance: number;
  /** Width of the band over which it turns opaque, in code values, 1 to 120. */
  softness: number;
  /** Takes so many footage pixels off the edge; below 0 it adds them; -10 to 10. */
  choke: number;
  /** Radius in footage pixels by which the edge is blurred, 0 to 20. */
  feather: number;
  /** What lies outside is taken out whatever its colour; null for nothing. */
  garbage: FootageRect | null;
  /** The wall's light as it was found over the whole recording; null takes `color` everywhere. */
  wall: WallMap | null;
}

/** The empty wall as a coarse picture: luma and chroma in 8-bit code values, row by row. */
export interface WallMap {
  columns: number;
  rows: number;
  y: number[];
  u: number[];
  v: number[];
}

export const BLENDS = ['normal', 'multiply', 'screen'] as const;
export type Blend = (typeof BLENDS)[number];

export interface FootageLook {
  footageId: string;
  /** The part of the recording that counts as the whole; null for all of it. */
  area: FootageRect | null;
  /** Of another shape than the picture: seen whole, or filling it with its edges cut off. */
  fit: 'fit' | 'fill';
  /**
   * What is beside a recording that is seen whole: the background, or the recording itself,
   * blurred.
   */
  bars: 'plain' | 'blur';
  /** Added to brightness, -1 to 1 (1 is the whole range). */
  brightness: number;
  /** Factor around mid-grey, 0.25 to 4. */
  contrast: number;
  /** 0 to 1. */
  opacity: number;
  /** How it joins what lies behind it. */
  blend: Blend;
  /** Degrees that it is turned, clockwise, -45 to 45. */
  tilt: number;
}
