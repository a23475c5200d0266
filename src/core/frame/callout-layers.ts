import { assertNever } from '../assert-never';
import { anchorFootage } from '../callout/anchor';
import { shiftAt, shiftedPoint, shiftsAround, type Shift } from '../callout/follow-path';
import type { CalloutKind, CalloutScene } from '../callout/kind';
import { kindOf } from '../callout/kinds';
import { numberOf } from '../callout/number';
import { presenceAt } from '../callout/presence';
import type { Callout } from '../project/model';
import { sourceMs } from '../project/clip-time';
import type { InOutput } from '../scale/rect';
import { contains } from '../time/ranges';
import { ticksToSeconds } from '../time/ticks';
import { screenShowing, type Scene, type ScreenView } from '../scene/scene';
import type { Layer } from './plan';
import { pointerIn } from './pointer-now';

type Level = CalloutKind<never>['level'];

/** How much further a cover reaches where what it hides is, and where it may be, in its pixels. */
const GROWN = { sure: 2, unsure: 8 };

/**
 * What a callout is told of what it stands on; null while that is not seen. Of content that is
 * followed it is the place at which it is seen.
 */
export function calloutScene(scene: Scene, callout: Callout): CalloutScene | null {
  const screen = screenShowing(scene, anchorFootage(callout.anchor) ?? '');
  const places = calloutScenes(scene, callout, screen, false);
  return places[0] ?? null;
}

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
    ms: ticksToSeconds(time - callout.start) * 1000,
    presence: presenceAt(callout, time),
    number: callout.kind === 'count' ? numberOf(scene.project, callout) : 0,
    output,
    ratio,
    grown: 0,
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
      return [{ ...shared, stage, scale, toOutput }];
    }
    case 'track': {
      if (screen?.footage.id !== anchor.footageId) return [];
      const ms = sourceMs(screen.clip, time);
      const { stage } = screen;
      const shifts = all ? shiftsAround(anchor.path, ms) : [shiftAt(anchor.path, ms)];
      return shifts
        .filter((shift) => shift !== null && (all || shift.sure))
        .map((shift) => ({ ...shared, stage, ...shiftedScene(screen, shift!) }));
    }
    case 'pointer': {
      if (screen?.footage.id !== anchor.footageId) return [];
      const pointer = pointerIn(scene, screen);
      if (!pointer) return [];
      const { stage, scale, toOutput } = screen;
      const { x, y } = pointer.at;
      return [{ ...shared, stage, scale, toOutput: (p) => toOutput({ x: x + p.x, y: y + p.y }) }];
    }
    default:
      return assertNever(anchor);
  }
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
    return places.flatMap((within) => kind.marks(callout, within));
  });
}

/** The callouts that stand on a recording or on its pointer, by level. */
export const callouts =
  (scene: Scene, screen: ScreenView) =>
  (level: Level): Layer[] =>
    layersOf(scene, screen, level, ({ anchor }) => anchor.to !== 'frame');

/** The places that covers hide at an instant, in output pixels; those on the frame too. */
export const coveredAreas = (scene: Scene, screen: ScreenView): InOutput[] =>
  layersOf(scene, screen, 'cover', () => true).flatMap((layer) =>
    layer.kind === 'region' ? [layer.area] : [],
  );

/** The callouts that stand on the frame, in front of everything. */
export const frameCallouts = (scene: Scene): Layer[] =>
  (['cover', 'below', 'above'] as const).flatMap((level) =>
    layersOf(scene, null, level, ({ anchor }) => anchor.to === 'frame'),
  );
