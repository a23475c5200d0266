import { WHOLE } from '@/core/callout/kind';
import { kindOf } from '@/core/callout/kinds';
import type { EditArgs } from '@/core/edit/registry';
import { calloutScene } from '@/core/frame/callout-layers';
import { sceneAt } from '@/core/scene/scene';
import type { EditorState } from '../session/state';
import { playheadOf, selectedSpans } from '../store';

/** How far something is moved in the Picture, in frame pixels. */
export interface Way {
  readonly dx: number;
  readonly dy: number;
}

/**
 * Moves all callouts that are selected together, by the same way in the Picture whatever each
 * stands on. What is moved is as it is now, so that a drag always begins there.
 *
 * @returns the edit for a way; null where fewer than two are selected that are seen now
 */
export function movingTogether(
  state: EditorState,
): ((way: Way) => EditArgs<'change-callouts'>) | null {
  const scene = sceneAt(state.project, state.sources, playheadOf(state));
  const ids = selectedSpans(state);
  const seen = state.project.callouts.flatMap((callout) => {
    const on = ids.includes(callout.id) ? calloutScene(scene, callout) : null;
    return on ? [{ callout, scale: on.scale }] : [];
  });
  if (seen.length < 2) return null;
  return (way) => ({
    changes: seen.map(({ callout, scale }) => {
      const by = { dx: way.dx / scale, dy: way.dy / scale };
      const change = kindOf(callout).withHandle(callout, WHOLE, { by, frame: way });
      return { id: callout.id, change };
    }),
  });
}
