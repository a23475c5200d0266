import { shiftAt } from '@/core/callout/follow-path';
import type { CalloutScene } from '@/core/callout/kind';
import { restAround, type Stretch } from '@/core/callout/mended-path';
import { untilted, type Way } from '@/core/callout/moved';
import type { EditArgs } from '@/core/edit/registry';
import { sourceMs } from '@/core/project/clip-time';
import type { Callout } from '@/core/project/model';
import { screenClipAt } from '@/core/project/query';
import { contains } from '@/core/time/ranges';
import type { Ticks } from '@/core/time/ticks';
import { rangeOf } from './session/range';
import type { EditorState } from './session/state';

const rounded = (ms: number) => Math.round(ms * 1000) / 1000;

/**
 * The stretch of its recording in which the way of a callout is mended: between the in and the out
 * point if the playhead is there, else while it rests as it does then. Null where its recording is
 * not shown, or was not looked through.
 */
export function wayStretch(
  state: Pick<EditorState, 'project' | 'range'>,
  { anchor }: Callout,
  playhead: Ticks,
): Stretch | null {
  if (anchor.to !== 'track') return null;
  const { path, footageId } = anchor;
  const clip = screenClipAt(state.project, footageId, playhead);
  if (!clip) return null;
  const ms = sourceMs(clip, playhead);
  if (ms < path.from - path.step || ms > path.to) return null;
  const range = rangeOf(state);
  const { from, to } =
    range && contains(range, playhead)
      ? { from: sourceMs(clip, range.start), to: sourceMs(clip, range.end) }
      : restAround(path, ms);
  const stretch = {
    from: rounded(Math.max(path.from, from)),
    to: rounded(Math.min(path.to, to)),
  };
  return stretch.from < stretch.to ? stretch : null;
}

/**
 * How the way of a callout is mended when all of it is moved at the playhead by frame pixels; null
 * unless it goes along and its way is what is to be mended.
 */
export function mendedBy(
  state: Pick<EditorState, 'project' | 'range' | 'mendsWay'>,
  callout: Callout,
  on: CalloutScene,
  playhead: Ticks,
  way: Way,
): EditArgs<'move-followed'> | null {
  const { id, anchor } = callout;
  const stretch = state.mendsWay ? wayStretch(state, callout, playhead) : null;
  const clip = anchor.to === 'track' && screenClipAt(state.project, anchor.footageId, playhead);
  const shift = clip && shiftAt(anchor.path, sourceMs(clip, playhead));
  if (!stretch || !shift) return null;
  // Its own pixels are those of the recording where it was marked.
  const ratio = (shift.scale * on.size) / on.scale;
  const { dx, dy } = untilted(way, on);
  return { id, ...stretch, dx: dx * ratio, dy: dy * ratio };
}
