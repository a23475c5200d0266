import type { PointerEvent } from 'react';
import type { CalloutScene, Handle } from '@/core/callout/kind';
import { movesAll } from '@/core/callout/moved';
import { calloutScene } from '@/core/frame/callout-layers';
import { pageAt } from '@/core/framing/cuts';
import type { Box } from '@/core/layout/model';
import { restOf, type Rest } from '@/core/layout/snap-lines';
import type { Callout } from '@/core/project/model';
import { padded, type Rect } from '@/core/scale/rect';
import {
  boxInOutput,
  frontmost,
  presenterOf,
  sceneAt,
  screenIn,
  type Scene,
} from '@/core/scene/scene';
import { contains } from '@/core/time/ranges';
import { mendedBy } from '../mend-way';
import type { EditorState } from '../session/state';
import { playheadOf, selectedSpans } from '../store';
import { followDrag } from './drag';
import { moveCallout } from './move-callout';
import { movingTogether } from './move-together';
import { placeOfCallout, placeOfHandle } from './place-in-frame';

/** Edges come to rest on lines so near, in CSS pixels. */
const REACH_PX = 6;

/** What stands in the recording holds what is so near, in shares of the Picture. */
const NEAR = 0.04;

const meet = (a: Rect, b: Rect): boolean =>
  a.x <= b.x + b.width && b.x <= a.x + a.width && a.y <= b.y + b.height && b.y <= a.y + a.height;

/** Panels and lines of text that stand in the recording at the playhead, in frame pixels. */
function readInFrame(scene: Scene): Rect[] {
  const { project, sources, time } = scene;
  const screen = screenIn(scene);
  const page = screen && pageAt(project, sources, screen.footage.id, time);
  if (!screen || !page) return [];
  return [...page.panels, ...page.lines].map((rect) => boxInOutput(screen, rect));
}

/** What a callout that is dragged can rest on wherever it is: other callouts, the presenter. */
function othersIn(scene: Scene, moving: readonly string[]): Rect[] {
  const callouts = scene.project.callouts.flatMap((callout) => {
    if (moving.includes(callout.id) || !contains(callout, scene.time)) return [];
    const on = calloutScene(scene, callout);
    return on ? [placeOfCallout(callout, on)] : [];
  });
  const shown = frontmost(scene, 'presenter');
  const presenter = shown && presenterOf(scene, shown);
  return [...callouts, ...(presenter ? [presenter.place.destination] : [])];
}

/** How a drag in frame pixels is changed so that what is dragged rests on a line that is near. */
function resting(
  state: EditorState,
  callout: Callout,
  handle: Handle,
  on: CalloutScene,
): (dx: number, dy: number, reach: number) => Rest {
  const { canvas } = state.project;
  const scene = sceneAt(state.project, state.sources, playheadOf(state));
  const inShares = ({ x, y, width, height }: Rect): Box => ({
    ...{ x: x / canvas.width, y: y / canvas.height },
    ...{ width: width / canvas.width, height: height / canvas.height },
  });
  const from = placeOfHandle(callout, handle, on);
  const others = othersIn(scene, [callout.id, ...selectedSpans(state)]).map(inShares);
  const read = readInFrame(scene).map(inShares);
  return (dx, dy, reach) => {
    const box = inShares({ ...from, x: from.x + dx, y: from.y + dy });
    // A page is full of lines; those far away would hold it everywhere.
    const around = padded(box, NEAR);
    const near = read.filter((one) => meet(one, around));
    const rest = restOf(box, canvas, reach / canvas.width, [...others, ...near]);
    return { ...rest, dx: dx + rest.dx * canvas.width, dy: dy + rest.dy * canvas.height };
  };
}

/**
 * Drags a callout by one of its handles, and with it all that are selected when the handle moves all
 * of it. It comes to rest on lines of the picture, on other things and on what stands in the
 * recording; Alt leaves that out, as does snapping when it is switched off.
 *
 * @param scale CSS pixels for one frame pixel
 */
export function dragCallout(
  event: PointerEvent,
  state: EditorState,
  callout: Callout,
  handle: Handle,
  on: CalloutScene,
  scale: number,
): void {
  const under = state.drag();
  const together = movesAll(handle) ? movingTogether(state) : null;
  const rest = resting(state, callout, handle, on);
  followDrag(
    event,
    (x, y, { altKey }) => {
      const { dx, dy, lines } = rest(
        x / scale,
        y / scale,
        altKey || !state.snapping ? -1 : REACH_PX / scale,
      );
      state.set({ restingOn: lines });
      const mended =
        movesAll(handle) && mendedBy(state, callout, on, playheadOf(state), { dx, dy });
      if (mended) return under.to('move-followed', mended);
      if (together) return under.to('change-callouts', together({ dx, dy }));
      const change = moveCallout(state, callout, handle, on, { dx, dy });
      under.to('change-callout', { id: callout.id, change });
    },
    () => state.set({ restingOn: null }),
  );
}
