import { arrange, type Arrangement } from '@/core/callout/align';
import { WHOLE, type CalloutScene } from '@/core/callout/kind';
import { kindOf } from '@/core/callout/kinds';
import type { EditArgs } from '@/core/edit/registry';
import { calloutScene } from '@/core/frame/callout-layers';
import type { Callout } from '@/core/project/model';
import { sceneAt } from '@/core/scene/scene';
import { contains } from '@/core/time/ranges';
import type { EditorState } from '../session/state';
import { playheadOf, selectedSpans } from '../store';
import { moveBy } from './move-by';
import { placeOfCallout } from './place-in-frame';

/** How far something is moved in the Picture, in frame pixels. */
export interface Way {
  readonly dx: number;
  readonly dy: number;
}

type Changes = EditArgs<'change-callouts'>;

interface Seen {
  readonly callout: Callout;
  readonly on: CalloutScene;
}

/** The callouts that are selected and can be seen now. */
function selectedAndSeen(state: EditorState, within = true): Seen[] {
  const scene = sceneAt(state.project, state.sources, playheadOf(state));
  const ids = selectedSpans(state);
  return state.project.callouts.flatMap((callout) => {
    if (!ids.includes(callout.id) || (within && !contains(callout, scene.time))) return [];
    const on = calloutScene(scene, callout);
    return on ? [{ callout, on }] : [];
  });
}

const movedBy = ({ callout, on }: Seen, { dx, dy }: Way): Changes['changes'][number] => ({
  id: callout.id,
  change: kindOf(callout).withHandle(callout, WHOLE, moveBy(on, dx, dy)),
});

/**
 * Moves all callouts that are selected together, by the same way in the Picture whatever each
 * stands on. What is moved is as it is now, so that a drag always begins there.
 *
 * @returns the edit for a way; null where fewer than two are selected that are seen now
 */
export function movingTogether(state: EditorState): ((way: Way) => Changes) | null {
  const seen = selectedAndSeen(state, false);
  return seen.length < 2 ? null : (way) => ({ changes: seen.map((one) => movedBy(one, way)) });
}

/**
 * Brings the callouts that are selected and seen in line, or gives them the same room between.
 *
 * @returns the edit; null where fewer are seen than it takes
 */
export function arrangingTogether(state: EditorState, how: Arrangement): Changes | null {
  const seen = selectedAndSeen(state);
  const ways = arrange(
    seen.map(({ callout, on }) => placeOfCallout(callout, on)),
    how,
  );
  return ways.length ? { changes: seen.map((one, i) => movedBy(one, ways[i]!)) } : null;
}
