import { faceShiftAt } from '../face/follow';
import { ease } from '../framing/path';
import { viewAt } from '../framing/view';
import { presenterBoxOf } from '../layout/by-hand';
import { groundBetween, pictureOfGround, type Ground } from '../layout/ground';
import { groundsOf, layoutBetween, layoutMomentAt, type LayoutMoment } from '../layout/glide';
import type { Layout, PresenterBox } from '../layout/model';
import {
  hidesScreen,
  movedWithin,
  placePresenter,
  placeScreen,
  screenStage,
  type Placement,
  type PresenterPlace,
  type There,
} from '../layout/rectangles';
import type { Clip, Project } from '../project/model';
import { sourceMs } from '../project/clip-time';
import { areaOf, clipAt, isLaneOn, lookOf, visibleClip } from '../project/query';
import { footageOf, type FootageFacts, type Sources } from '../project/sources';
import {
  cornersOf,
  evenCeil,
  middleOf,
  rectAround,
  sizeTurned,
  turnedAbout,
  type InFootage,
  type InOutput,
  type PointInFootage,
  type PointInOutput,
  type Size,
} from '../scale/rect';
import { magnification, wholeView } from '../scale/sharpness';
import { same } from '../schema/same';
import type { Ticks } from '../time/ticks';

/** What one clip shows, and the recording that it is of. */
export interface Shown {
  readonly clip: Clip;
  readonly footage: FootageFacts;
}

/** A screen recording as it is seen at an instant. */
export interface ScreenView extends Shown {
  /** The part of the recording that counts as its whole. */
  readonly area: InFootage;
  /** What of the recording is seen; it reaches beyond the recording where bars are. */
  readonly view: InFootage;
  /** Degrees by which it is seen turned about the middle of its stage, clockwise. */
  readonly turn: number;
  /** Whether the view is in the middle of a ramp. */
  readonly moving: boolean;
  /** The part of the output that the screen has. */
  readonly stage: InOutput;
  /** Where its pixels go; null when the view shows nothing of it. */
  readonly placement: Placement | null;
  /** Output pixels for one footage pixel. */
  readonly scale: number;
  /** Frame pixels for one footage pixel: above 1 the picture is invented. */
  readonly frameScale: number;
  /** How much larger than in the whole view of the picture things are. */
  readonly magnification: number;
  /** How much larger than in the whole picture's whole view things are. */
  readonly zoom: number;
  /** The largest magnification at which this layout shows the recording sharp. */
  readonly limit: number;
  readonly toOutput: (point: PointInFootage) => PointInOutput;
  readonly toFootage: (point: PointInOutput) => PointInFootage;
  /** What lies at a point of the whole picture, which this may be turned within. */
  readonly fromPicture: (point: PointInOutput) => PointInFootage;
}

/**
 * The ways of points when a view's upper left corner is seen at a stage's, by a scale, and all of
 * it is turned about the stage's middle by so many degrees.
 */
export function mappings(
  view: InFootage,
  stage: InOutput,
  scale: number,
  turn = 0,
): Pick<ScreenView, 'toOutput' | 'toFootage'> {
  const middle = middleOf(stage);
  return {
    toOutput: ({ x, y }) => {
      const upright = { x: stage.x + (x - view.x) * scale, y: stage.y + (y - view.y) * scale };
      return turn ? turnedAbout(upright, middle, turn) : upright;
    },
    toFootage: (point) => {
      const { x, y } = turn ? turnedAbout(point, middle, -turn) : point;
      return { x: view.x + (x - stage.x) / scale, y: view.y + (y - stage.y) / scale };
    },
  };
}

/** The smallest rectangle of the output around a rectangle of the recording. */
export const boxInOutput = (
  { toOutput }: Pick<ScreenView, 'toOutput'>,
  rect: InFootage,
): InOutput => rectAround(cornersOf(rect).map(toOutput));

/** A presenter's recording as it is seen at an instant. */
export interface PresenterView extends Shown {
  readonly place: PresenterPlace;
}

/** What is seen at an instant, worked out once for all who ask. */
export interface Scene {
  readonly project: Project;
  readonly sources: Sources;
  readonly time: Ticks;
  /** Size of what is drawn, in output pixels. */
  readonly output: Size;
  /** Output pixels for one frame pixel. */
  readonly ratio: number;
  readonly layout: Layout;
  /** Whether screen and presenter are on their way to another place. */
  readonly gliding: boolean;
  /**
   * The two layouts of which one is blended over the other; `layout` is that which is seen more.
   */
  readonly dissolve: LayoutMoment | null;
  /** What is behind all, and what comes over it in a glide between pictures. */
  readonly ground: {
    readonly under: Ground;
    readonly over: Ground | null;
    /** How much of that is there, 0 to 1. */
    readonly amount: number;
  };
  readonly there: There;
  /** Shows the screen without its framing and layout. */
  readonly whole: boolean;
}

/** A clip with its recording, if that is there and has a picture. */
export function withPicture(sources: Sources, clip: Clip | null): Shown | null {
  const footage = clip && footageOf(sources, clip.footageId);
  return clip && footage?.hasVideo ? { clip, footage } : null;
}

/** The frontmost recording of a kind at an instant, whatever the layout hides. */
export const frontmost = (
  { project, sources, time }: Pick<Scene, 'project' | 'sources' | 'time'>,
  kind: 'screen' | 'presenter',
): Shown | null => withPicture(sources, visibleClip(project, kind, time));

/**
 * What is seen at an instant: the layout, and who is there to be seen. `screenOf` and `presenterOf`
 * tell how one recording is seen in it.
 *
 * @param time timeline ticks
 * @param output output pixels; the project's own size tells frame pixels
 * @param whole shows the screen without its framing and layout
 */
export function sceneAt(
  project: Project,
  sources: Sources,
  time: Ticks,
  output: Size = project.canvas,
  { whole = false }: { whole?: boolean } = {},
): Scene {
  const at = { project, sources, time };
  const there = { screen: !!frontmost(at, 'screen'), presenter: !!frontmost(at, 'presenter') };
  const moment = withGrounds(layoutMomentAt(project.layouts, time), sources);
  const layout = layoutOf(moment, at, there);
  return {
    ...at,
    output,
    ratio: output.height / project.canvas.height,
    layout,
    ground: groundIn(moment, layout, project.canvas.background),
    gliding: moment.u < 1 && !moment.dissolves,
    dissolve: moment.u < 1 && moment.dissolves ? moment : null,
    there,
    whole,
  };
}

/**
 * The presenter's box in a layout at an instant: one of its own, or where the project places who is
 * there. Null where the layout shows none, and where nobody is there to be placed.
 */
export function presenterBoxAt(
  at: Pick<Scene, 'project' | 'sources' | 'time'>,
  layout: Layout,
): PresenterBox | null {
  if (layout.presenter !== 'placed') return layout.presenter;
  const { canvas, presenter: placed } = at.project;
  const shown = frontmost(at, 'presenter');
  return shown && presenterBoxOf(layout, placed, areaOf(at.project, shown.footage), canvas);
}

/**
 * A layout that was saved in another project, or whose picture was deleted, lies on what the
 * project has.
 */
function withGrounds(moment: LayoutMoment, sources: Sources): LayoutMoment {
  const there = (id: string) => footageOf(sources, id)?.hasVideo;
  const kept = (layout: Layout): Layout =>
    pictureOfGround(layout.background).every(there) ? layout : { ...layout, background: null };
  return { ...moment, from: kept(moment.from), to: kept(moment.to) };
}

/** The layout of an instant, which may be on its way. */
function layoutOf(
  moment: LayoutMoment,
  at: Pick<Scene, 'project' | 'sources' | 'time'>,
  there: There,
): Layout {
  const { from, to, u, dissolves } = moment;
  if (dissolves) return u < 0.5 ? from : to;
  return u < 1 ? between(moment, at, there) : to;
}

/** A layout that is on its way. */
function between(
  moment: LayoutMoment,
  at: Pick<Scene, 'project' | 'sources' | 'time'>,
  there: There,
): Layout {
  const { canvas, presenter: placed } = at.project;
  const boxes = [presenterBoxAt(at, moment.from), presenterBoxAt(at, moment.to)] as const;
  const { background } = canvas;
  return layoutBetween(moment, ease(moment.u), there, boxes, { background, placed });
}

/** What is behind all: that of the layout, or in a glide both where nothing lies between them. */
function groundIn(moment: LayoutMoment, layout: Layout, project: Ground): Scene['ground'] {
  const [from, to] = groundsOf(moment, project);
  const amount = ease(moment.u);
  if (moment.u < 1 && !moment.dissolves && !same(from, to) && !groundBetween(from, to, amount))
    return { under: from, over: to, amount };
  return { under: layout.background ?? project, over: null, amount: 1 };
}

/** The part of a picture of some size that the screen has in a scene. */
const stageIn = ({ whole, layout, there }: Scene, size: Size): InOutput =>
  whole ? { x: 0, y: 0, ...size } : screenStage(layout, there, size);

/**
 * The sharp limit of a recording in a scene: the largest magnification at which none of its pixels
 * is spread over more than one of the frame's. Below 1 when even the whole view is soft.
 */
export function sharpLimitIn(scene: Scene, footage: FootageFacts): number {
  const { project } = scene;
  const area = areaOf(project, footage);
  return wholeView(area, project.canvas).width / stageIn(scene, project.canvas).width;
}

/** How a screen recording is seen in a scene. */
export function screenOf(scene: Scene, { clip, footage }: Shown): ScreenView {
  const { project, output, whole, time } = scene;
  const { canvas } = project;
  const area = areaOf(project, footage);
  const stage = stageIn(scene, output);
  const frameStage = stageIn(scene, canvas);
  const seen = whole
    ? { rect: wholeView(area, canvas), turn: 0, moving: false }
    : viewAt(project.framings, footage.id, area, frameStage, time, scene.gliding);
  const { rect: view, turn, moving } = seen;
  const scale = stage.width / view.width;
  const closer = magnification(view, area, canvas);
  const ways = mappings(view, stage, scale, turn);
  return {
    clip,
    footage,
    area,
    view,
    turn,
    moving,
    stage,
    placement: placeScreen(view, area, stage),
    scale,
    frameScale: frameStage.width / view.width,
    magnification: closer,
    zoom: closer * (stage.width / output.width),
    limit: sharpLimitIn(scene, footage),
    ...{ ...ways, fromPicture: ways.toFootage },
  };
}

/** Pixels around what is turned, for the filter that turns it. */
const TURN_MARGIN = 2;

/**
 * A screen recording that is seen turned, as it is before it is turned: upright in a picture of its
 * own, that is as large as what is seen of it. What is not turned stays as it is.
 */
export function uprightOf(
  scene: Scene,
  screen: ScreenView,
): { readonly scene: Scene; readonly screen: ScreenView } {
  const { view, area, stage, scale, turn } = screen;
  if (!turn) return { scene, screen };
  const around = sizeTurned(stage, turn);
  const output = {
    width: evenCeil(around.width + 2 * TURN_MARGIN),
    height: evenCeil(around.height + 2 * TURN_MARGIN),
  };
  const size = { width: output.width / scale, height: output.height / scale };
  const seen = {
    x: view.x + (view.width - size.width) / 2,
    y: view.y + (view.height - size.height) / 2,
    ...size,
  };
  const whole: InOutput = { x: 0, y: 0, ...output };
  return {
    scene: { ...scene, output },
    screen: {
      ...screen,
      ...{ view: seen, stage: whole, placement: placeScreen(seen, area, whole), turn: 0 },
      ...mappings(seen, whole, scale),
    },
  };
}

/**
 * One recording as it is seen in a scene, on whatever screen lane it plays; null where it does not.
 */
export function screenShowing(scene: Scene, footageId: string): ScreenView | null {
  const { project, sources, time } = scene;
  for (const lane of project.lanes) {
    if (lane.kind !== 'screen' || !isLaneOn(project, lane)) continue;
    const found = withPicture(sources, clipAt(lane, time));
    if (found?.footage.id === footageId) return screenOf(scene, found);
  }
  return null;
}

/** The frontmost screen recording of a scene as it is seen; null where none is. */
export function screenIn(scene: Scene): ScreenView | null {
  if (hidesScreen(scene.layout, scene.there)) return null;
  const found = frontmost(scene, 'screen');
  return found && screenOf(scene, found);
}

/** How a presenter's recording is seen in a scene; null where the layout shows none. */
export function presenterOf(scene: Scene, { clip, footage }: Shown): PresenterView | null {
  const { project, output, layout, there } = scene;
  const area = areaOf(project, footage);
  const place = placePresenter(layout, there, project.presenter, area, output);
  const path = lookOf(project, footage.id)?.face;
  if (!place || !path) return place && { clip, footage, place };
  const shift = faceShiftAt(path, sourceMs(clip, scene.time));
  const away = { x: shift.x * footage.width, y: shift.y * footage.height };
  return { clip, footage, place: { ...place, source: movedWithin(place.source, away, area) } };
}
