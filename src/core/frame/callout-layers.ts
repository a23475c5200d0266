import { assertNever } from '../assert-never';
import { anchorFootage } from '../callout/anchor';
import type { CalloutKind, CalloutScene } from '../callout/kind';
import { kindOf } from '../callout/kinds';
import { numberOf } from '../callout/number';
import { presenceAt } from '../callout/presence';
import type { Callout } from '../project/model';
import { contains } from '../time/ranges';
import { ticksToSeconds } from '../time/ticks';
import { screenShowing, type Scene, type ScreenView } from '../scene/scene';
import type { Layer } from './plan';
import { pointerIn } from './pointer-now';

type Level = CalloutKind<never>['level'];

/**
 * What a callout is told of what it stands on; null while that is not seen.
 *
 * @param screen the recording that is drawn; without, the one that the callout stands on is looked
 *   for
 */
export function calloutScene(
  scene: Scene,
  callout: Callout,
  screen: ScreenView | null = screenShowing(scene, anchorFootage(callout.anchor) ?? ''),
): CalloutScene | null {
  const { time, output, ratio } = scene;
  const { anchor } = callout;
  const shared = {
    ms: ticksToSeconds(time - callout.start) * 1000,
    presence: presenceAt(callout, time),
    number: callout.kind === 'count' ? numberOf(scene.project, callout) : 0,
    output,
    ratio,
  };
  switch (anchor.to) {
    case 'frame':
      return {
        ...shared,
        stage: { x: 0, y: 0, ...output },
        scale: ratio,
        toOutput: ({ x, y }) => ({ x: x * ratio, y: y * ratio }),
      };
    case 'footage': {
      if (screen?.footage.id !== anchor.footageId) return null;
      const { stage, scale, toOutput } = screen;
      return { ...shared, stage, scale, toOutput };
    }
    case 'pointer': {
      if (screen?.footage.id !== anchor.footageId) return null;
      const pointer = pointerIn(scene, screen);
      if (!pointer) return null;
      const { stage, scale, toOutput } = screen;
      const { x, y } = pointer.at;
      return { ...shared, stage, scale, toOutput: (p) => toOutput({ x: x + p.x, y: y + p.y }) };
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
    const within = calloutScene(scene, callout, screen);
    return within ? kind.marks(callout, within) : [];
  });
}

/** The callouts that stand on a recording or on its pointer, by level. */
export const callouts =
  (scene: Scene, screen: ScreenView) =>
  (level: Level): Layer[] =>
    layersOf(scene, screen, level, ({ anchor }) => anchor.to !== 'frame');

/** The callouts that stand on the frame, in front of everything. */
export const frameCallouts = (scene: Scene): Layer[] =>
  (['cover', 'below', 'above'] as const).flatMap((level) =>
    layersOf(scene, null, level, ({ anchor }) => anchor.to === 'frame'),
  );
