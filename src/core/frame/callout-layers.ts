import { assertNever } from '../assert-never';
import { anchorFootage } from '../callout/anchor';
import { shiftAt, shiftedPoint, shiftsAround, type Shift } from '../callout/follow-path';
import type { CalloutKind, CalloutScene, Magnify } from '../callout/kind';
import { kindOf } from '../callout/kinds';
import { isPlain, poseAt, type Pose } from '../callout/keyframes';
import { numberOf } from '../callout/number';
import { appearanceAt, WHOLLY, type Appearance } from '../callout/motion';
import type { Callout } from '../project/model';
import { sourceMs } from '../project/clip-time';
import { turned, type InOutput, type PointInOutput } from '../scale/rect';
import { contains } from '../time/ranges';
import type { Point } from '../schema/parts';
import { ticksToSeconds } from '../time/ticks';
import { screenShowing, type Scene, type ScreenView } from '../scene/scene';
import { magnified, sharpPower } from './inset';
import type { Layer } from './plan';
import { pointerIn } from './pointer-now';

type Level = CalloutKind<never>['level'];

/** How much further a cover reaches where what it hides is, and where it may be, in its pixels. */
const GROWN = { sure: 2, unsure: 8 };

/** What a callout is told that neither comes nor goes, but for its place. */
const AT_REST = {
  ...{ ms: 0, presence: 1, drawn: 1, number: 0, grown: 0, turn: 0, tilt: 0, size: 1 },
  magnify: null,
} as const;

/**
 * What a callout is told of what it stands on, in the pose that it has then; null while that is not
 * seen. Of content that is followed it is the place at which it is seen.
 */
export function calloutScene(scene: Scene, callout: Callout): CalloutScene | null {
  const screen = screenShowing(scene, anchorFootage(callout.anchor) ?? '');
  const places = calloutScenes(scene, callout, screen, false);
  return places[0] ? posed(callout, places[0], poseOf(scene, callout)) : null;
}

const poseOf = ({ time }: Scene, callout: Callout): Pose => poseAt(callout, time - callout.start);

/** A place of a recording's content that went elsewhere, by where it was when it was marked. */
function shiftedScene(
  { scale, toOutput }: Pick<CalloutScene, 'scale' | 'toOutput'>,
  shift: Shift,
): Pick<CalloutScene, 'scale' | 'toOutput' | 'grown'> {
  return {
    scale: scale * shift.scale,
    grown: (shift.sure ? GROWN.sure : GROWN.unsure) * scale,
    toOutput: (point) => toOutput(shiftedPoint(point, shift)),
  };
}

/** How callouts that stand on a recording are turned with it. */
const tiltOf = ({ turn }: ScreenView) => ({ turn, tilt: turn });

/** How a recording that is seen is shown larger, with what covers it. */
const magnifyOf = (scene: Scene, screen: ScreenView): Magnify => ({
  sharp: sharpPower(screen),
  layers: (at, box, power, mask) => {
    const covers = coversWithin(scene, screen);
    return magnified(scene, screen, screen.toFootage(at), box, power, mask, covers)?.layers ?? null;
  },
});

/**
 * The places at which a callout is drawn, with what it is told there: one, or none while what it
 * stands on is not seen.
 *
 * @param screen the recording that is drawn
 * @param all all places at which followed content may be, for a cover
 */
function calloutScenes(
  scene: Scene,
  callout: Callout,
  screen: ScreenView | null,
  all: boolean,
): CalloutScene[] {
  const { time, output, ratio } = scene;
  const { anchor } = callout;
  const shared = {
    ...AT_REST,
    ms: ticksToSeconds(time - callout.start) * 1000,
    number: callout.kind === 'count' ? numberOf(scene.project, callout) : 0,
    output,
    ratio,
    magnify: screen && anchor.to !== 'frame' ? magnifyOf(scene, screen) : null,
  };
  switch (anchor.to) {
    case 'frame':
      return [
        {
          ...shared,
          stage: { x: 0, y: 0, ...output },
          scale: ratio,
          toOutput: ({ x, y }) => ({ x: x * ratio, y: y * ratio }),
        },
      ];
    case 'footage': {
      if (screen?.footage.id !== anchor.footageId) return [];
      const { stage, scale, toOutput } = screen;
      return [{ ...shared, ...tiltOf(screen), stage, scale, toOutput }];
    }
    case 'track': {
      if (screen?.footage.id !== anchor.footageId) return [];
      const ms = sourceMs(screen.clip, time);
      const { stage } = screen;
      const shifts = all ? shiftsAround(anchor.path, ms) : [shiftAt(anchor.path, ms)];
      return shifts
        .filter((shift) => shift !== null && (all || shift.sure))
        .map((shift) => ({
          ...{ ...shared, ...tiltOf(screen), stage, ...shiftedScene(screen, shift!) },
        }));
    }
    case 'pointer': {
      if (screen?.footage.id !== anchor.footageId) return [];
      const pointer = pointerIn(scene, screen);
      if (!pointer) return [];
      const { stage, scale, toOutput } = screen;
      const { x, y } = pointer.at;
      const from = (p: Point) => toOutput({ x: x + p.x, y: y + p.y });
      return [{ ...shared, ...tiltOf(screen), stage, scale, toOutput: from }];
    }
    default:
      return assertNever(anchor);
  }
}

/** The spot about which a callout grows: what it points at, or the middle of what it marks. */
function pivotOf(callout: Callout): Point {
  const [first] = kindOf(callout).handles(callout);
  const { at, size } = first!;
  return size ? { x: at.x + size.width / 2, y: at.y + size.height / 2 } : at;
}

/** What a callout is told in a pose, and while it comes or goes. */
function posed(
  callout: Callout,
  place: CalloutScene,
  pose: Pose,
  { presence, drawn, size: share, below }: Appearance = WHOLLY,
): CalloutScene {
  // Most callouts rest as they are most of the time.
  if (isPlain(pose) && presence === 1 && drawn === 1 && share === 1 && below === 0) return place;
  const size = pose.size * share;
  const turn = kindOf(callout).upright ? 0 : pose.turn;
  const spot = pivotOf(callout);
  const pivot = place.toOutput(spot);
  const at = place.toOutput({ x: spot.x + pose.dx, y: spot.y + pose.dy });
  const dy = below * place.output.height;
  return {
    ...place,
    ...{ presence: presence * pose.opacity, drawn, turn: place.tilt + turn, size },
    ...{ scale: place.scale * size, ratio: place.ratio * size },
    toOutput: (point) => {
      const { x, y } = place.toOutput(point);
      const way = turned((x - pivot.x) * size, (y - pivot.y) * size, turn);
      return { x: at.x + way.x, y: at.y + way.y + dy };
    },
  };
}

function layersOf(
  scene: Scene,
  screen: ScreenView | null,
  level: Level,
  which: (callout: Callout) => boolean,
): Layer[] {
  return scene.project.callouts.flatMap((callout) => {
    const kind = kindOf(callout);
    if (kind.level !== level || !contains(callout, scene.time) || !which(callout)) return [];
    const places = calloutScenes(scene, callout, screen, kind.level === 'cover');
    const appearance = callout.kind === 'cover' ? WHOLLY : appearanceAt(callout, scene.time);
    const pose = poseOf(scene, callout);
    return places.flatMap((place) => kind.marks(callout, posed(callout, place, pose, appearance)));
  });
}

/** The callouts that stand on a recording or on its pointer, by level. */
export const callouts =
  (scene: Scene, screen: ScreenView) =>
  (level: Level): Layer[] =>
    layersOf(scene, screen, level, ({ anchor }) => anchor.to !== 'frame');

/**
 * What covers a recording where it is shown larger: its own covers, and those on the frame, which
 * hide there what they hide in the picture.
 *
 * @param screen the recording as it is seen in the picture
 */
export const coversWithin =
  (scene: Scene, screen: ScreenView) =>
  (within: ScreenView): Layer[] => {
    const { output, ratio } = scene;
    const onFrame = {
      ...AT_REST,
      ...{ output, ratio, stage: within.stage, scale: (ratio * within.scale) / screen.scale },
      toOutput: ({ x, y }: Point) =>
        within.toOutput(screen.fromPicture({ x: x * ratio, y: y * ratio } as PointInOutput)),
    };
    return [
      ...callouts(scene, within)('cover'),
      ...scene.project.callouts
        .filter(({ kind, anchor }) => kind === 'cover' && anchor.to === 'frame')
        .filter((cover) => contains(cover, scene.time))
        .flatMap((cover) =>
          kindOf(cover).marks(cover, posed(cover, onFrame, poseOf(scene, cover))),
        ),
    ];
  };

const areasOf = (layers: readonly Layer[]): InOutput[] =>
  layers.flatMap((layer) => (layer.kind === 'region' ? [layer.area] : []));

/** The places that covers on a recording hide at an instant, in output pixels; it is upright. */
export const coveredOnRecording = (scene: Scene, upright: ScreenView): InOutput[] =>
  areasOf(callouts(scene, upright)('cover'));

/** The places that covers on the frame hide at an instant, in output pixels. */
export const coveredOnFrame = (scene: Scene): InOutput[] =>
  areasOf(layersOf(scene, null, 'cover', ({ anchor }) => anchor.to === 'frame'));

/** The callouts that stand on the frame, in front of everything. */
export const frameCallouts = (scene: Scene): Layer[] =>
  (['cover', 'below', 'above'] as const).flatMap((level) =>
    layersOf(scene, null, level, ({ anchor }) => anchor.to === 'frame'),
  );
