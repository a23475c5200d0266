import type { PointerEvent } from 'react';
import { withPresenterBox, withScreenBox } from '@/core/layout/by-hand';
import { dragBox, type DraggedBox, type Grip } from '@/core/layout/box-drag';
import type { Box, Layout, LayoutSpan, PresenterBox } from '@/core/layout/model';
import { presenterBoxAt } from '@/core/scene/scene';
import type { Ticks } from '@/core/time/ticks';
import type { EditorState } from '../session/state';
import { followDrag } from './drag';

/** Which of a layout's boxes. */
export type BoxName = 'screen' | 'presenter';

/** Edges come to rest on lines so near, in CSS pixels. */
const REACH_PX = 7;

/** A layout with one of its boxes elsewhere. */
export const withBox = (
  layout: Layout,
  name: BoxName,
  box: Box,
  presenter: PresenterBox | null,
): Layout =>
  name === 'screen'
    ? withScreenBox(layout, box)
    : withPresenterBox(layout, presenter && { ...presenter, box });

/** The box that a layout has of a name; null where it has none. */
const boxOf = (layout: Layout, name: BoxName, presenter: PresenterBox | null): Box | null =>
  (name === 'screen' ? layout.screen?.box : presenter?.box) ?? null;

/**
 * Drags a box of a layout. Alt leaves its edges where they are let go, Shift keeps the shape (of a
 * circle it is kept without, and Shift frees it), Ctrl sizes about the middle.
 *
 * @param scale CSS pixels for one frame pixel
 * @param onLines told of the lines it rests on; null when it is let go
 */
export function dragLayoutBox(
  event: PointerEvent,
  state: EditorState,
  { id, layout }: LayoutSpan,
  name: BoxName,
  grip: Grip,
  time: Ticks,
  scale: number,
  onLines: (lines: DraggedBox['lines'] | null) => void = () => {},
): void {
  const presenter = presenterBoxAt({ ...state, time }, layout);
  const from = boxOf(layout, name, presenter);
  if (!from) return;
  const other = boxOf(layout, name === 'screen' ? 'presenter' : 'screen', presenter);
  const { width, height } = state.project.canvas;
  const circle = name === 'presenter' && presenter?.shape === 'circle';
  const under = state.drag();
  followDrag(
    event,
    (dx, dy, { altKey, shiftKey, ctrlKey, metaKey }) => {
      const { box, lines } = dragBox(from, grip, dx / scale / width, dy / scale / height, {
        frame: { width, height },
        keepShape: circle !== shiftKey,
        aboutMiddle: ctrlKey || metaKey,
        reach: altKey ? 0 : REACH_PX / scale / width,
        others: other ? [other] : [],
      });
      onLines(lines);
      under.to('change-layout', { id, change: { layout: withBox(layout, name, box, presenter) } });
    },
    () => {
      onLines(null);
      under.end();
    },
  );
}
