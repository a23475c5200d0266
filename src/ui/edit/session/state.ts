import type { NewShape } from '@/core/callout/draw';
import type { Pen } from '@/core/callout/pen';
import type { Rest } from '@/core/layout/snap-lines';
import type { StoreApi } from 'zustand';
import type { PrivateData } from '@/contract/analyses';
import type { Preset } from '@/contract/presets';
import type { OpenedProject } from '@/contract/projects';
import type { ProjectState } from '@/contract/state';
import type { Versioned } from '@/core/edit/history';
import type { EditArgs, EditCall, EditId, EditResult } from '@/core/edit/registry';
import type { LineUpTask } from '@/core/edit/line-up-task';
import type { SpanList } from '@/core/project/span-lists';
import type { PlanView } from '@/core/frame/plan-frame';
import type { FramingLook } from '@/core/framing/other-views';
import type { Plan } from '@/core/framing/plan';
import type { PrivateFound, PrivateStretch } from '@/core/private/log';
import type { SuggestedLayout } from '@/core/staging/suggest';
import type { OpenPlace } from '@/core/private/shown';
import type { Framing, Layout } from '@/core/project/model';
import type { Taste } from '@/core/framing/taste';
import type { Sources } from '@/core/project/sources';
import type { Rect } from '@/core/scale/rect';
import type { Ticks } from '@/core/time/ticks';
import type { Transport } from './transport';

/* What is known of an open project, by what it is about. One store holds all of it but playback. */

export type Selection =
  | { readonly kind: 'clip' | SpanList | 'step' | 'marker' | 'lane'; readonly id: string }
  | { readonly kind: 'presenter' | 'project' | 'plan' | 'suggestions' }
  /** The path of a recording's pointer, to be mended. */
  | { readonly kind: 'path'; readonly footageId: string }
  /** The private data that a recording shows, to be covered. */
  | { readonly kind: 'private'; readonly footageId: string }
  | null;

export type Dialogs = 'export' | 'commands' | 'keys' | 'history' | 'freeze' | 'retake';
export type Panel = 'steps' | 'footage' | 'details';
/**
 * `failed` is tried again; `refused` waits for the next edit, since the same would be refused
 * again.
 */
export type SaveState = 'saved' | 'waiting' | 'saving' | 'failed' | 'refused' | 'stale';

/**
 * A drag under way: each move is an edit of the state at its start, and takes the place of the move
 * before.
 */
export interface Drag {
  /**
   * Does the edit of a move. Once another edit was done meanwhile, as by a key, the drag is over
   * and this does nothing.
   */
  readonly to: (...call: EditCall) => void;
  /** Says why the last move could not be done, if it could not. */
  readonly end: () => void;
}

/** The document, its undo history, and how far it is saved. */
export interface DocumentSlice extends Versioned {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly save: SaveState;
  /** Why the last save was refused or failed. */
  readonly saveFault: string | null;
  readonly suggestion: OpenedProject['suggestion'];
  /**
   * Does an edit; a refusal becomes a message. Answers what the edit does, or null when it was
   * refused.
   *
   * @param merge joins the edit before it, when that had the same label and selection and was of
   * the same gesture
   */
  readonly apply: <I extends EditId>(
    id: I,
    args: EditArgs<I>,
    merge?: boolean,
  ) => { readonly result: EditResult<I> } | null;
  /** What is edited from now on is another gesture, and so another step of undo. */
  readonly endGesture: () => void;
  /** Begins a drag. */
  readonly drag: () => Drag;
  /** Takes over a state that came from elsewhere, as it is saved or is to be. */
  readonly adopt: (next: Versioned, revision: number, save: SaveState) => void;
  readonly undo: () => void;
  readonly redo: () => void;
  /** Goes to the state in which so many edits are done. */
  readonly goTo: (count: number) => void;
}

/** What is meant by the next command. */
export interface SelectionSlice {
  readonly selection: Selection;
  /** Clips and spans that are selected with it. */
  readonly also: readonly string[];
  /** In and out points; a range is there when both are. */
  readonly range: { readonly in: Ticks | null; readonly out: Ticks | null };
  /** Lanes that commands on the range act on; null for all that are not locked. */
  readonly rangeLanes: readonly string[] | null;
  /** The group whose clips are edited one by one. */
  readonly openGroup: string | null;
  readonly select: (selection: Selection, also?: readonly string[]) => void;
}

/** What is open, and how it is shown. */
export interface WorkspaceSlice {
  readonly panel: Panel;
  /** What is open over the place. */
  readonly dialog: Dialogs | null;
  /** Timeline scale. */
  readonly pixelsPerSecond: number;
  /** Whether somebody set the scale; else the whole is shown. */
  readonly scaleChosen: boolean;
  readonly snapping: boolean;
  /** Whether the Picture has all of the place. */
  readonly large: boolean;
  /** Whether magnified text is shown as it was recorded. */
  readonly softText: boolean;
  /** What is being done with recordings that were brought, before they are placed. */
  readonly arriving: string | null;
  readonly view: PlanView;
  /** The thing whose text is to be typed next: its field takes the keys as soon as it is there. */
  readonly typeInto: string | null;
  /** The lines on which what is dragged in the Picture rests. */
  readonly restingOn: Rest['lines'] | null;
  /** What the next press on the Picture picks: the wall's colour, or a further sample of it. */
  readonly picking: 'color' | 'sample' | null;
  /** What the next drag over the Picture draws. */
  readonly drawing: 'framing' | 'path' | Pen | NewShape | null;
  /** Whether new callouts are drawn on the Picture instead of being put where the pointer is. */
  readonly drawsShapes: boolean;
  /** Whether dragging what goes along mends its way at the playhead, and not all of it. */
  readonly mendsWay: boolean;
  /** The layouts that were saved for every project, as far as they are known. */
  readonly savedLayouts: readonly Preset<Layout>[];
}

/** What framings are planned for. */
export type PlanScope = 'project' | 'step' | 'range';

/** Planning of framings. */
export interface PlanSlice {
  /** Layouts that suit the steps better than those that they have; null where that failed. */
  readonly suggestLayouts: () => Promise<readonly SuggestedLayout[] | null>;
  /** How far it is found where the presenter is out of the way, 0 to 1; null while it is not. */
  readonly clearing: number | null;
  /**
   * Has the presenter stand where text and what happens can be seen: in the range, or throughout.
   */
  readonly keepClear: () => Promise<void>;
  readonly taste: Taste;
  readonly planScope: PlanScope;
  /** The share that is done of a plan under way; null when there is none. */
  readonly planning: number | null;
  /**
   * Plans framings and puts them in the place of those there were. One that is asked for meanwhile
   * takes its place.
   *
   * @returns null when it failed, or another took its place
   */
  readonly planFramings: (change?: {
    readonly taste?: Partial<Taste>;
    readonly scope?: PlanScope;
  }) => Promise<Plan | null>;
  /** What a framing shows and what else it could show; null where that can't be told. */
  readonly lookAtFraming: (framing: Framing) => Promise<FramingLook | null>;
  readonly endPlanning: () => void;
}

/** What is being followed for a callout. */
export interface Following {
  /** What was asked for; null until the server took it. */
  readonly analysis: string | null;
  /** When the callout lay on what is followed, in ticks. */
  readonly time: Ticks;
  /** Whether it is to last as long as that is seen. */
  readonly whole: boolean;
  /** What was read of it, which is to be covered whatever is found. */
  readonly also?: ReadPlaces;
}

/** Where private data was read: when it was marked, and in all. */
export interface ReadPlaces {
  readonly marked: Rect;
  readonly stretches: readonly PrivateStretch[];
}

/** Following what callouts mark. */
export interface FollowSlice {
  /** What is under way, by the callouts' ids. */
  readonly following: Readonly<Record<string, Following>>;
  /** Follows what a callout lies on at an instant, the playhead’s without, and has it go along. */
  readonly followContent: (
    id: string,
    whole: boolean,
    told?: { readonly time?: Ticks; readonly also?: ReadPlaces },
  ) => Promise<void>;
  /** Gives up what is under way for a callout. */
  readonly stopFollowing: (id: string) => void;
  /** Has a callout go along with what was found for it. */
  readonly takeFollowed: (id: string) => Promise<void>;
}

/** Lining clips up by what their recordings heard. */
export interface LineUpSlice {
  /** What is under way: for each part its analysis; null for all while they are asked for. */
  readonly liningUp: {
    readonly task: LineUpTask;
    readonly analyses: readonly (string | null)[] | null;
  } | null;
  /** Compares the sound of clips and moves them to where it fits. */
  readonly lineUpBySound: (ids: readonly string[]) => Promise<void>;
  /** Gives up what is under way. */
  readonly stopLiningUp: () => void;
  /** Moves clips to where what was found says. */
  readonly takeLinedUp: () => Promise<void>;
}

/** Private data that recordings show. */
export interface PrivateSlice {
  /** What was found, by the ids of the analyses. */
  readonly privateData: Readonly<Record<string, PrivateData>>;
  /** The analysis that was asked for last, by the recordings’ ids. */
  readonly privateAsked: Readonly<Record<string, string>>;
  /** Looks for private data, and for words of one’s own, in a recording. */
  readonly lookForPrivate: (footageId: string, words: readonly string[]) => Promise<void>;
  /** Fetches what an analysis found, if it is not there yet. */
  readonly readPrivate: (analysis: string) => Promise<void>;
  /** Adds covers for what lies bare, and has them go along with it. */
  readonly coverPrivate: (
    footageId: string,
    found: readonly PrivateFound[],
    places: readonly OpenPlace[],
  ) => void;
}

/** What the server tells of the project. */
export interface ServerSlice extends Pick<
  ProjectState,
  'footage' | 'jobs' | 'exports' | 'takes' | 'analyses'
> {
  readonly connected: boolean;
  readonly sources: Sources;
}

export interface EditorState
  extends
    DocumentSlice,
    SelectionSlice,
    WorkspaceSlice,
    PlanSlice,
    FollowSlice,
    LineUpSlice,
    PrivateSlice,
    ServerSlice {
  readonly transport: StoreApi<Transport>;
  readonly set: (change: Partial<EditorState>) => void;
}

export type Get = () => EditorState;
export type Change = (change: Partial<EditorState>) => void;
