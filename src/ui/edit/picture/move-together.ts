import { arrange, type Arrangement } from '@/core/callout/align';
import type { CalloutScene } from '@/core/callout/kind';
import type { Way } from '@/core/callout/moved';
import type { EditArgs } from '@/core/edit/registry';
import { calloutScene } from '@/core/frame/callout-layers';
import type { Callout } from '@/core/project/model';
import { sceneAt } from '@/core/scene/scene';
import { contains } from '@/core/time/ranges';
import type { EditorState } from '../session/state';
import { playheadOf, selectedSpans } from '../store';
import { moveCallout } from './move-callout';
import { placeOfCallout } from './place-in-frame';

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

const movedBy = (
  state: EditorState,
  { callout, on }: Seen,
  way: Way,
): Changes['changes'][number] => ({
  id: callout.id,
  change: moveCallout(state, callout, null, on, way),
});

/**
 * Moves all callouts that are selected together, by the same way in the Picture whatever each
 * stands on. What is moved is as it is now, so that a drag always begins there.
 *
 * @returns the edit for a way; null where fewer than two are selected that are seen now
 */
export function movingTogether(state: EditorState): ((way: Way) => Changes) | null {
  const seen = selectedAndSeen(state, false);
  return seen.length < 2
    ? null
    : (way) => ({ changes: seen.map((one) => movedBy(state, one, way)) });
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
  return ways.length ? { changes: seen.map((one, i) => movedBy(state, one, ways[i]!)) } : null;
}
