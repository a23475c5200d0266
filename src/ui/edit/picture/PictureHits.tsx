'use client';
import type { MouseEvent, PointerEvent } from 'react';
import { builtInOf } from '@/core/layout/built-in';
import { movedInset } from '@/core/layout/by-hand';
import type { LayoutSpan } from '@/core/layout/model';
import { spanAt } from '@/core/project/query';
import type { InOutput, PointInOutput } from '@/core/scale/rect';
import { sceneAt } from '@/core/scene/scene';
import type { Selection } from '../session/state';
import { playheadOf, selectedSpans, useEditorStore } from '../store';
import { pressItem } from '../timeline/selecting';
import { dragCallout } from './callout-drag';
import { followDrag } from './drag';
import { dragLayoutBox } from './layout-drag';
import { thingAt, type Thing } from './thing-at';

/** What is selected with the presenter: the layout that has a place for them, or their settings. */
const presenterOr = (span: LayoutSpan | null): Selection =>
  span ? { kind: 'layouts', id: span.id } : { kind: 'presenter' };

/** Gives the handle of what was just selected the focus, so that arrow keys move it. */
const focusOn = (handle: string): void => {
  requestAnimationFrame(() =>
    document
      .querySelector<HTMLElement>(`[data-handle="${handle}"]`)
      ?.focus({ preventScroll: true }),
  );
};

/**
 * Lets what is seen in the Picture be pressed, which selects it (with Ctrl or Shift beside what is
 * selected), and dragged at once, which moves
 * it: callouts, covers, the presenter. The screen itself is only selected.
 */
export function PictureHits({ scale }: { scale: number }) {
  const store = useEditorStore();
  const find = (event: MouseEvent): Thing | null => {
    const { project, sources } = store.getState();
    const box = event.currentTarget.getBoundingClientRect();
    const point = { x: (event.clientX - box.left) / scale, y: (event.clientY - box.top) / scale };
    return thingAt(sceneAt(project, sources, playheadOf(store.getState())), point as PointInOutput);
  };
  /** The layout at the playhead, if it is one whose presenter has a place of their own. */
  const layoutHere = (): LayoutSpan | null => {
    const { project } = store.getState();
    const span = spanAt(project.layouts, playheadOf(store.getState()));
    const own = span && span.layout.presenter !== 'placed';
    return own && builtInOf(span.layout) !== 'presenter' ? span : null;
  };
  /** Selects what is there, and answers it. */
  const choose = (event: MouseEvent): Thing | null => {
    const { select } = store.getState();
    const thing = find(event);
    if (!thing) select(null);
    else if (thing.kind === 'screen') select({ kind: 'clip', id: thing.clipId });
    else if (thing.kind === 'presenter') select(presenterOr(layoutHere()));
    // Several that are selected stay so.
    else if (!selectedSpans(store.getState()).includes(thing.callout.id))
      select({ kind: 'callouts', id: thing.callout.id });
    return thing;
  };
  const press = (event: PointerEvent) => {
    if (event.button !== 0) return;
    const { drag } = store.getState();
    if (event.ctrlKey || event.metaKey || event.shiftKey) {
      const thing = find(event);
      if (thing?.kind !== 'callout') return;
      event.preventDefault();
      return pressItem(store, thing.callout.id, { ctrl: true, shift: false });
    }
    const thing = choose(event);
    if (!thing || thing.kind === 'screen') return;
    if (thing.kind === 'presenter') {
      const span = layoutHere();
      focusOn(span ? 'layout-presenter' : 'presenter');
      const { inset } = thing;
      if (span) {
        const state = store.getState();
        return dragLayoutBox(event, state, span, 'presenter', 'all', playheadOf(state), scale);
      }
      if (!inset) return;
      const { width, height } = store.getState().project.canvas;
      const under = drag();
      return followDrag(event, (dx, dy) => {
        const moved = { ...inset, x: inset.x + dx / scale, y: inset.y + dy / scale } as InOutput;
        under.to('change-presenter', { change: movedInset(moved, { width, height }) });
      });
    }
    const { callout, handle, on } = thing;
    focusOn(handle.id);
    dragCallout(event, store.getState(), callout, handle, on, scale);
  };
  const point = (event: PointerEvent<HTMLElement>) => {
    if (event.buttons) return;
    const kind = find(event)?.kind;
    event.currentTarget.style.cursor = kind && kind !== 'screen' ? 'move' : 'default';
  };
  return (
    <div
      className="absolute inset-0"
      onPointerDown={press}
      onPointerMove={point}
      onContextMenu={choose}
    />
  );
}
